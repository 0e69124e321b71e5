"""A DXF file begun and written: R2010, millimetres, equal drawings giving equal bytes, its extents told.

Office and viewing programs place what they show by the extents in the header: without them the whole drawing falls
on one point.
"""

from __future__ import annotations

import io
from datetime import datetime
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from ezdxf.document import Drawing

WRITTEN = datetime(2000, 1, 1).toordinal() + 1721424.5  # a Julian day: no time of writing in the file
MARGIN = 1.05  # of the view a file opens with


def new_document() -> Drawing:
    """Return an empty document in millimetres."""
    import ezdxf.filemanagement
    from ezdxf._options import options

    options.write_fixed_meta_data_for_testing = True
    return ezdxf.filemanagement.new("R2010", units=4)


def dxf_bytes(document: Drawing, width: float, height: float) -> bytes:
    """Return a document as a file whose model space fills a width and a height from the origin, mm, and opens on it."""
    # The library adds some of them out of a set, whose order is another one in each process.
    document.classes.add_required_classes(document.dxfversion)
    document.classes.classes = dict(sorted(document.classes.classes.items()))
    space = document.modelspace()
    space.reset_extents((0, 0, 0), (width, height, 0))
    space.reset_limits((0, 0), (width, height))
    document.header["$EXTMIN"], document.header["$EXTMAX"] = (0, 0, 0), (width, height, 0)
    document.set_modelspace_vport(MARGIN * max(height, width / 1.6), center=(width / 2, height / 2))
    document.header["$TDCREATE"] = document.header["$TDUPDATE"] = WRITTEN
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode("utf-8")
