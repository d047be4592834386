"""Speed and accuracy, measured: `make bench`. The results are kept in docs/benchmarks.md."""
