"""The whole of the core: imported once where a program starts that works on projects.

Packages say to those below them what these cannot know: how far two pins are apart in a layout (`cabinet`), which texts
leave a sheet (`scenes`). They do so when they are read; this module reads them all, whatever else the program needs.
"""

from . import cabinet, scenes

__all__ = ["cabinet", "scenes"]
