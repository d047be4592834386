"""What is left of finished pieces: packs, their clocks, what to use first; what stands on a label; yield and cost."""
