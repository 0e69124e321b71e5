"""The kinds of entity, one dataclass each; every module here is read when the model is."""

from importlib import import_module
from pkgutil import iter_modules

for _module in iter_modules(__path__):
    import_module(f"{__name__}.{_module.name}")
