"""Derived values: functions of the model that know what they read, asked for again only when that has changed.

Terms: a *cell* is what can be read of the model: a record by its id, all records of a kind by the kind's name, what
lies on a sheet, the ids under a key of an index. A *node* is the value of a derived function for one key. While a
function runs, the cells and nodes it reads are noted. When a cell changes, the nodes that read it become *stale* and
all that stand on those *suspect*. A stale node is worked out again when it is asked for; a suspect one only if a node
it read has come out different. What comes out equal keeps its old value, and what stands on it is left alone.

Of a project that nobody changes (a snapshot, a frozen revision, a file that is only read) nothing need be noted: its
memo *rests*, which saves a quarter to a third of the work. A change ends the rest, and all is worked out anew.

Large values are kept of few keys only. A node whose value was let go still knows what it read and who reads it, so that
what stands on it stays as it is; its function runs again when somebody asks for the value itself.

A *part* is one entry of a value that is worked out at once, its *whole*: a group of those of a sheet. When the whole
changes, its parts are looked at one by one, and only what stands on those that have become different is suspect. Until
somebody asks for anything, the whole is *unsettled*: what stands on its parts is not marked yet.

An error of a function (a rule that does not hold, a record that is not there) is kept as its value is, and raised for
each who asks: what read it and went on without it is worked out again when the cause of the error has changed.

A derived function reads the model and other derived values only, and changes nothing; nobody changes what it returns.
"""

from __future__ import annotations

import itertools
from collections.abc import Callable, Hashable, Iterable
from functools import wraps
from typing import TYPE_CHECKING, Any, Concatenate, ParamSpec, TypeVar, cast

from .errors import CoreError
from .nodes import CLEAN, STALE, SUSPECT, Derivation, Log, Raised, Readers, Reads, each, same, with_one, without

if TYPE_CHECKING:
    from .project import Project

P = ParamSpec("P")
T = TypeVar("T")

_LET_GO = object()  # in place of a value that is not kept
SWEEP_EVERY = 500  # changes of the model after which nodes that nobody has asked for since the last time are dropped
_turns = itertools.count(1)


class Memo:
    """All derived values of a project that are known."""

    def __init__(self) -> None:
        self.tables: dict[str, dict[tuple[Any, ...], Derivation]] = {}
        self.reads: Reads | None = None  # of the function that runs now
        self.unsettled: dict[Derivation, int] = {}  # wholes that may have changed, with their turns before
        self._readers: dict[Hashable, Readers] = {}
        self._few: dict[str, int] = {}  # how many values are kept of functions of which not all are
        self._held: dict[str, dict[Derivation, None]] = {}  # the nodes that have those, the one longest there first
        self._log: Log | None = None
        self._quiet = False
        self._resting = False
        self._fired = 0
        self._stale_then: set[Derivation] = set()

    def __len__(self) -> int:
        return sum(map(len, list(self.tables.values())))  # another thread may just be adding one

    def make(
        self, project: Project, name: str, function: Callable[..., Any], key: tuple[Any, ...], keep: int = 0
    ) -> Derivation:
        """Return a new node with its value worked out; `keep` says of how many keys values are kept, 0 for all."""
        node = Derivation(name, function, key)
        node.pick = _picks.get(name)
        if keep:
            self._few[name] = keep
        if self._log is not None:
            self._log[node] = None
        outer = self.reads
        reads = self.reads = None if self._resting else Reads()
        try:
            node.value = function(project, *key) if reads is None else _outcome(project, node)
        finally:
            self.reads = outer
        node.turn, node.state = next(_turns), CLEAN
        if reads is not None:
            self._note(node, reads)
        if keep:
            self._hold(node)
        self.tables.setdefault(name, {})[key] = node
        return node

    def rest(self) -> None:
        """Take it that the model stays as it is: from now on what values read is not noted.

        Notes:
            A change of the model ends it: all values are forgotten, and noted again from then on.
        """
        self._resting = True

    def value_of(self, project: Project, node: Derivation) -> Any:
        """Return the value of a node, brought up to date, and worked out again where it was let go."""
        if self.unsettled:
            self.settle(project)
        if node.state:
            self.renew(project, node)
        if node.value is _LET_GO:
            self.refill(project, node)
        return node.value

    def refill(self, project: Project, node: Derivation) -> None:
        """Work a value out again that was let go; nothing that it read has changed, so neither has it."""
        outer, self.reads = self.reads, Reads()
        try:
            node.value = _outcome(project, node)
        finally:
            self.reads = outer
        self._hold(node)

    def renew(self, project: Project, node: Derivation) -> None:
        """Bring a node up to date: at once when what it read is as it was, else by running its function again."""
        if node.state == SUSPECT:
            for read, turn in zip(node.nodes, node.turns, strict=True):
                if read.state:
                    self.renew(project, read)
                if read.turn != turn:
                    break
            else:
                if self._log is not None:
                    self._log.setdefault(node, SUSPECT)
                node.state = CLEAN
                return
        self._run(project, node)

    def settle(self, project: Project) -> None:
        """Bring wholes up to date that may have changed, and make suspect what stands on parts that have."""
        while self.unsettled:
            whole, turn = self.unsettled.popitem()
            try:
                if whole.state:
                    self.renew(project, whole)
            except Exception:  # whoever asks for a part is told then
                for part in list(whole.parts or ()):
                    self._mark(part)
                continue
            if whole.turn != turn:
                for part in list(whole.parts or ()):
                    if type(whole.value) is Raised:
                        self._mark(part)
                    elif not part.state:
                        self._settle_part(whole, part)

    def _settle_part(self, whole: Derivation, part: Derivation) -> None:
        """Give a part its value now; one that is there no more is worked out when it is asked for."""
        try:
            value = cast("Callable[..., Any]", part.pick)(whole.value, *part.key)
        except LookupError:
            self._mark(part)
            return
        if value is not part.value and value != part.value:
            self._save(part)
            part.value, part.turn = value, next(_turns)
            self._suspect([part])

    def fire(self, cells: Iterable[Hashable]) -> None:
        """Say that cells have changed."""
        if self._quiet:
            return
        if self.reads is not None:
            raise RuntimeError("A derived value changes the model.")
        if self._resting:
            self._resting = False
            self.clear()
        self._fired += 1
        for cell in cells:
            for node in each(self._readers.get(cell)):
                self._mark(node)
        if self._fired % SWEEP_EVERY == 0 and self._log is None:
            self._sweep()

    def begin(self) -> Log | None:
        """Note from now on what nodes were before; return what `rollback` or `keep` wants."""
        outer, self._log = self._log, {}
        return outer

    def rollback(self, outer: Log | None) -> None:
        """Make all nodes what they were at `begin`; the model is the same again, too."""
        log = self._log or {}
        self._log = None
        for node, was in log.items():
            if was is None:
                self._drop(node)
        for node, was in log.items():
            if was is None or node.turn < 0:  # those that were all forgotten meanwhile
                continue
            if isinstance(was, int):
                node.state = was
            else:
                node.state, node.value, node.turn, nodes, turns, cells = was
                self._wire(node, nodes, turns, cells)
            if node.parts and node.state:
                self.unsettled[node] = node.turn
            else:
                self.unsettled.pop(node, None)
        self._log = outer
        self._quiet = False
        self._let_go()

    def keep(self, outer: Log | None) -> None:
        """Let all nodes be as they are now; who began before still knows what they were then."""
        if outer is not None:
            for node, was in (self._log or {}).items():
                had = outer.setdefault(node, was)
                if isinstance(had, int) and isinstance(was, tuple):
                    outer[node] = (had, *was[1:])
        self._log = outer
        self._let_go()

    def hush(self) -> None:
        """Take changes until `rollback` for such that take back what was done since `begin`."""
        self._quiet = True

    def clear(self) -> None:
        """Forget all values, each by itself: they hold on to each other."""
        for table in self.tables.values():
            for node in table.values():
                node.nodes, node.cells, node.readers, node.state, node.turn = (), (), None, STALE, -1
                node.parts = None
        self.tables.clear()
        self._held.clear()
        self._readers.clear()
        self._stale_then.clear()
        self.unsettled.clear()

    def _run(self, project: Project, node: Derivation) -> None:
        outer, self.reads = self.reads, Reads()
        try:
            value = _outcome(project, node)
            reads = self.reads
        finally:
            self.reads = outer
        self._save(node)
        if not node.turn or not same(value, node.value):
            node.value, node.turn = value, next(_turns)
        self._wire(node, tuple(reads.nodes), tuple(reads.nodes.values()), tuple(reads.all_cells()))
        node.state = CLEAN
        if node.name in self._few:
            self._hold(node)

    def _hold(self, node: Derivation) -> None:
        """Note that a node of which few values are kept has one now."""
        held = self._held.setdefault(node.name, {})
        held.pop(node, None)
        held[node] = None
        self._let_go()

    def _let_go(self) -> None:
        """Let go of the values that are too many; of none while it may be that all is taken back."""
        if self._log is not None:
            return
        for name, held in self._held.items():
            while len(held) > self._few[name]:
                oldest = next(iter(held))
                del held[oldest]
                oldest.value = _LET_GO

    def _note(self, node: Derivation, reads: Reads) -> None:
        """Put down what a new node has read, for the first time: a large project has hundreds of thousands."""
        if reads.nodes:
            node.nodes, node.turns = tuple(reads.nodes), tuple(reads.nodes.values())
            if node.pick is not None:
                for read in node.nodes:
                    _part_of(read, node)
            else:
                for read in node.nodes:
                    had = read.readers
                    read.readers = node if had is None else with_one(had, node)
        cells = reads.all_cells()
        if cells:
            node.cells = tuple(cells)
            readers = self._readers
            known = readers.get
            for cell in cells:
                had = known(cell)
                if type(had) is set:  # settings and types are read by nearly all: no call for each
                    had.add(node)
                else:
                    readers[cell] = node if had is None else with_one(had, node)

    def _wire(
        self, node: Derivation, nodes: tuple[Derivation, ...], turns: tuple[int, ...], cells: tuple[Hashable, ...]
    ) -> None:
        """Put down what a node has read, and take it from the readers of what it does not read any more."""
        if node.nodes != nodes:
            before, after = set(node.nodes), set(nodes)
            for read in before - after:
                if node.pick is not None:
                    cast("set[Derivation]", read.parts).discard(node)
                else:
                    read.readers = without(read.readers, node)
            for read in after - before:
                if node.pick is not None:
                    _part_of(read, node)
                else:
                    read.readers = with_one(read.readers, node)
            node.nodes = nodes
        node.turns = turns
        if node.cells != cells:
            old, new = set(node.cells), set(cells)
            for cell in old - new:
                left = without(self._readers[cell], node)
                if left is None:
                    del self._readers[cell]
                else:
                    self._readers[cell] = left
            for cell in new - old:
                self._readers[cell] = with_one(self._readers.get(cell), node)
            node.cells = cells

    def _mark(self, node: Derivation) -> None:
        """Make a node stale, and what stands on it suspect."""
        if node.state == STALE:
            return
        was, node.state = node.state, STALE
        if self._log is not None:
            self._log.setdefault(node, was)
        if was == CLEAN:
            self._suspect([node])

    def _suspect(self, waiting: list[Derivation]) -> None:
        """Make suspect what stands on nodes; of wholes only note that they are unsettled, for what reads parts."""
        log: Log = {} if self._log is None else self._log
        while waiting:  # in plain loops: an edit marks hundreds
            node = waiting.pop()
            if node.parts:
                self.unsettled.setdefault(node, node.turn)
            readers = node.readers
            for reader in () if readers is None else (readers,) if isinstance(readers, Derivation) else readers:
                if not reader.state:  # clean
                    log.setdefault(reader, CLEAN)
                    reader.state = SUSPECT
                    waiting.append(reader)

    def _save(self, node: Derivation) -> None:
        """Note all of a node, before more of it changes than its state."""
        log = self._log
        if log is None:
            return
        was = log.get(node, node.state)
        if isinstance(was, int):
            log[node] = (was, node.value, node.turn, node.nodes, node.turns, node.cells)

    def _drop(self, node: Derivation) -> None:
        """Forget a node; what stands on it is worked out again when it is asked for."""
        table = self.tables.get(node.name, {})
        if table.get(node.key) is node:
            del table[node.key]
        self._held.get(node.name, {}).pop(node, None)
        for reader in (*each(node.readers), *(node.parts or ())):
            self._mark(reader)
        self.unsettled.pop(node, None)
        self._wire(node, (), (), ())
        node.state, node.turn = STALE, -1

    def _sweep(self) -> None:
        """Drop the nodes that were stale at the last sweep and still are: what they are about may be gone."""
        stale = {n for table in self.tables.values() for n in table.values() if n.state == STALE}
        for node in stale & self._stale_then:
            self._drop(node)
        self._stale_then = stale - self._stale_then


def _outcome(project: Project, node: Derivation) -> Any:
    """Return the value of a node worked out anew, or the error that this ends in."""
    try:
        return node.function(project, *node.key)
    except (CoreError, LookupError) as error:
        return Raised(error)


_picks: dict[str, Callable[..., Any]] = {}  # of functions that give parts, by their names


def _part_of(whole: Derivation, node: Derivation) -> None:
    if whole.parts is None:
        whole.parts = set()
    whole.parts.add(node)


def derived(function: Callable[Concatenate[Project, P], T]) -> Callable[Concatenate[Project, P], T]:
    """Keep what a function of the project and a key returns until something that it read has changed.

    Notes:
        The key is given by position. Values are compared by `==`, and dicts by their order too.
    """
    return _kept(_name_of(function), function, 0)


def derived_as(name: str, function: Callable[Concatenate[Project, P], T]) -> Callable[Concatenate[Project, P], T]:
    """Keep values as `derived` does, under a name: for functions that are made by functions."""
    return _kept(name, function, 0)


def derived_few(
    keep: int,
) -> Callable[[Callable[Concatenate[Project, P], T]], Callable[Concatenate[Project, P], T]]:
    """Keep values as `derived` does, but of so many keys only, the oldest let go first: for large values."""

    def decorate(function: Callable[Concatenate[Project, P], T]) -> Callable[Concatenate[Project, P], T]:
        return _kept(_name_of(function), function, keep)

    return decorate


def derived_part(
    whole: Callable[..., Any], where: Callable[..., Any]
) -> Callable[[Callable[Concatenate[Any, P], T]], Callable[Concatenate[Project, P], T]]:
    """Make a derived function of what picks one part, an entry, of another's value.

    Args:
        whole: the derived function whose values have parts.
        where: gives its key from that of a part; it reads records only, no derived values.

    Notes:
        What stands on a part is left alone when other parts change, without being looked at.
    """

    def decorate(pick: Callable[Concatenate[Any, P], T]) -> Callable[Concatenate[Project, P], T]:
        picked: Callable[..., Any] = pick

        @wraps(picked)
        def work(project: Project, *key: Any) -> Any:
            return picked(whole(project, where(project, *key)), *key)

        _picks[_name_of(picked)] = picked
        return cast("Callable[Concatenate[Project, P], T]", _kept(_name_of(picked), work, 0))

    return decorate


def _name_of(function: Callable[..., Any]) -> str:
    return f"{function.__module__}.{function.__qualname__}"


def _kept(name: str, function: Callable[Concatenate[Project, P], T], keep: int) -> Callable[Concatenate[Project, P], T]:
    @wraps(function)
    def ask(project: Project, *key: Any) -> Any:
        memo = project.memo
        if memo.unsettled:
            memo.settle(project)
        table = memo.tables.get(name)
        node = table.get(key) if table is not None else None
        if node is None:
            node = memo.make(project, name, function, key, keep)
        elif node.state or node.value is _LET_GO:
            memo.value_of(project, node)
        reads = memo.reads
        if reads is not None:
            reads.nodes[node] = node.turn
        value = node.value
        if type(value) is Raised:
            raise value.error.with_traceback(None)
        return value

    return cast("Callable[Concatenate[Project, P], T]", ask)
