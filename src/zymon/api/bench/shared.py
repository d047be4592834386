"""What the Bench's routes share."""


def attachment(name: str) -> dict[str, str]:
    """Headers that let a browser keep an answer as a file."""
    plain = "".join(c if c.isascii() and (c.isalnum() or c in "-_.") else "-" for c in name)
    return {"Content-Disposition": f'attachment; filename="{plain}"'}
