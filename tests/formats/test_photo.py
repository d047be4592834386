"""Photos at the bounds of what is kept."""

import io
import tracemalloc

import pytest
from PIL import Image

from zymon.formats.photo import LONGEST_PX, MOST_BYTES, PhotoError, kept_photo
from zymon.words import told


def picture(width: int, height: int, kind: str = "JPEG", **more: object) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (width, height), (120, 40, 50)).save(out, kind, **more)
    return out.getvalue()


def test_forty_megapixels_are_kept_small_and_more_are_refused_by_their_header() -> None:
    kept = Image.open(io.BytesIO(kept_photo(picture(8000, 5000))))
    assert kept.size == (LONGEST_PX, LONGEST_PX * 5 // 8)
    bomb = picture(8001, 5000, "PNG")
    assert len(bomb) < 500_000  # small on the way, large once laid out
    tracemalloc.start()
    with pytest.raises(PhotoError) as refused:
        kept_photo(bomb)
    assert tracemalloc.get_traced_memory()[1] < 5_000_000
    tracemalloc.stop()
    assert "too large" in told(refused.value)


def test_more_bytes_than_a_phone_makes_are_refused() -> None:
    with pytest.raises(PhotoError) as refused:
        kept_photo(b"x" * (MOST_BYTES + 1))
    assert "20 MB at most" in told(refused.value)
    with pytest.raises(PhotoError):
        kept_photo(b"x" * 100)


def test_a_photo_is_turned_upright_and_tells_nothing_of_its_camera() -> None:
    exif = Image.Exif()
    exif[0x0112] = 6  # lies on its side
    exif[0x010F] = "a camera"
    kept = Image.open(io.BytesIO(kept_photo(picture(400, 200, exif=exif))))
    assert kept.size == (200, 400)
    assert not kept.getexif()
