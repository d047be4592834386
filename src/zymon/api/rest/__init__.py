"""The Rest station: pieces that even out in their bags."""
