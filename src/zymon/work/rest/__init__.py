"""The Rest: pieces that even out in their bags, squeezed, weighed, cut or hung again."""
