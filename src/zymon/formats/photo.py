"""A photo off a phone made fit to keep: turned upright, small, and without what the camera wrote into it."""

from io import BytesIO

from PIL import Image, ImageOps, UnidentifiedImageError

from zymon.core.errors import ZymonError

MOST_BYTES = 20_000_000
MOST_PIXELS = 40_000_000  # told by the header, before anything is laid out in memory
LONGEST_PX = 1600
QUALITY = 82


class PhotoError(ZymonError, ValueError):
    """This is no photo that can be kept; says why."""


def kept_photo(data: bytes) -> bytes:
    """The photo as JPEG, its longest side 1600 pixels at most, without place, time or camera. Raises PhotoError."""
    if len(data) > MOST_BYTES:
        raise PhotoError("refused.photo_bytes", megabytes=round(len(data) / 1e6), most=MOST_BYTES / 1e6)
    try:
        with Image.open(BytesIO(data)) as opened:
            if opened.width * opened.height > MOST_PIXELS:
                raise PhotoError("refused.photo_pixels")
            opened.draft("RGB", (2 * LONGEST_PX, 2 * LONGEST_PX))  # a JPEG is read no larger than it is needed
            opened.thumbnail((LONGEST_PX, LONGEST_PX))
            upright = ImageOps.exif_transpose(opened).convert("RGB")
    except (UnidentifiedImageError, OSError, Image.DecompressionBombError, SyntaxError, ValueError) as error:
        if isinstance(error, PhotoError):
            raise
        raise PhotoError("refused.no_photo_to_read") from error
    bare = Image.new("RGB", upright.size)
    bare.paste(upright)  # a fresh picture carries nothing but its pixels
    out = BytesIO()
    bare.save(out, "JPEG", quality=QUALITY, optimize=True)
    return out.getvalue()
