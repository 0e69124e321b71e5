"""Pictures taken in from files."""

from __future__ import annotations

import base64
import io

from PIL import Image, UnidentifiedImageError

from jolly_core.model import MAX_BASE64, RuleError

MEDIA_TYPES = {"PNG": "image/png", "JPEG": "image/jpeg"}
LARGEST_PX = 4000


def read_picture(data: str) -> tuple[str, int, int]:
    """Return media type, width and height in pixels of a picture given as base64.

    Raises:
        RuleError: it is no PNG or JPEG, damaged, or too large.
    """
    if len(data) > MAX_BASE64:
        raise RuleError(f"The picture is larger than {MAX_BASE64 * 3 // 4000} kB. Make it smaller.", field="data")
    try:
        content = base64.b64decode(data, validate=True)
        with Image.open(io.BytesIO(content), formats=tuple(MEDIA_TYPES)) as image:
            width, height = image.size
            if max(width, height) > LARGEST_PX:
                raise RuleError(f"The picture has more than {LARGEST_PX} pixels on a side.", field="data")
            image.load()
            return MEDIA_TYPES[image.format or ""], width, height
    except (ValueError, OSError, SyntaxError, UnidentifiedImageError, Image.DecompressionBombError):
        raise RuleError(
            "This is not a PNG or JPEG picture that can be read. Choose another file.", field="data"
        ) from None
