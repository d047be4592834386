"""The record of a batch as PDF: what an inspector reads, with drawings as vectors."""
