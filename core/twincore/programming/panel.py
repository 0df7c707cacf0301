"""A panel as a machine: what it shows, and what one press does. Four kinds here: menu, digits, cycle and dial; the fifth asks (`guided`)."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from twincore.profile import Board, Value
from twincore.profile.values import plain

STORED = "stored"


@dataclass(frozen=True, slots=True)
class Shown:
    """Where a panel stands: the item chosen, whether it is being changed, the place of the cursor, the draft, and what
    is stored. Drafts and values are indices into the items' domains, one for each place of a code.
    """

    item: int
    editing: bool
    cursor: int
    draft: tuple[int, ...]
    values: tuple[tuple[int, ...], ...]


@dataclass(frozen=True, slots=True)
class Panel:
    """One panel of a board: `items` are element names, `domains` what each may be, `keys` the key of each action."""

    kind: str
    title: str
    opening: tuple[dict[str, Any], ...]
    keys: Mapping[str, str]
    items: tuple[str, ...]
    domains: tuple[tuple[Value, ...], ...]
    lengths: tuple[int, ...]
    wraps: bool
    values_wrap: bool
    fast: int
    hold_s: float

    def at_rest(self, values: tuple[tuple[int, ...], ...]) -> Shown:
        """The panel just opened: the first item; panels without a list show their one value for changing."""
        if self.kind == "menu":
            return Shown(0, False, 0, (), values)
        return Shown(0, True, 0, values[0], values)

    def press(self, shown: Shown, action: str) -> Shown:
        """What stands after one press; an action that does nothing here changes nothing."""
        if action not in self.keys:
            return shown
        if self.kind == "menu":
            return self._menu(shown, action)
        if action == "store" or (self.kind == "cycle" and "store" not in self.keys):
            after = self._changed(shown, action)
            return replace(after, values=(after.draft,))
        return self._changed(shown, action)

    def meant(self, shown: Shown, key: str) -> str:
        """What a key does where the panel stands: of its actions the one that changes anything."""
        actions = [action for action, each in self.keys.items() if each == key]
        return next((action for action in actions if self.press(shown, action) != shown), actions[0])

    def left(self, shown: Shown) -> bool:
        """Whether nothing is being changed any more."""
        return not (self.kind == "menu" and shown.editing)

    def _menu(self, shown: Shown, action: str) -> Shown:
        if not shown.editing:
            if action in ("next", "previous"):
                return replace(
                    shown, item=self._moved(shown.item, 1 if action == "next" else -1, len(self.items), self.wraps)
                )
            if action == "enter":
                return replace(shown, editing=True, draft=shown.values[shown.item])
            return shown
        if action == ("store" if "store" in self.keys else "enter"):
            values = tuple(shown.draft if i == shown.item else each for i, each in enumerate(shown.values))
            return Shown(shown.item, False, 0, (), values)
        if action == "leave":
            return Shown(shown.item, False, 0, (), shown.values)
        return self._changed(shown, action)

    def _changed(self, shown: Shown, action: str) -> Shown:
        size = len(self.domains[shown.item])
        steps = {"up": 1, "down": -1, "fast_up": self.fast, "fast_down": -self.fast}
        if self.kind in ("cycle", "dial"):
            wrap = self.kind == "cycle" or self.wraps
            by = {"next": 1, "previous": -1}.get(action, 0)
            return replace(shown, draft=(self._moved(shown.draft[0], by, size, wrap),))
        if self.kind == "digits" and action in ("next", "previous"):
            by = 1 if action == "next" else -1
            return replace(shown, cursor=self._moved(shown.cursor, by, self.lengths[0], self.wraps))
        if action in steps:
            moved = self._moved(shown.draft[shown.cursor], steps[action], size, self.values_wrap)
            return replace(shown, draft=(*shown.draft[: shown.cursor], moved, *shown.draft[shown.cursor + 1 :]))
        return shown

    @staticmethod
    def _moved(index: int, by: int, size: int, wraps: bool) -> int:
        return (index + by) % size if wraps else min(max(index + by, 0), size - 1)

    def text(self, shown: Shown) -> str:
        """What can be seen on the display."""
        if self.kind == "menu" and not shown.editing:
            return self.items[shown.item]
        written = [str(plain(self.domains[shown.item][index])) for index in shown.draft]
        if self.kind != "digits":
            return written[0]
        return "".join(f"[{mark}]" if place == shown.cursor else mark for place, mark in enumerate(written))


def plain_panel(node: Mapping[str, Any], board: Board) -> Panel:
    """A panel that is set in any order: menu, digits, cycle or dial."""
    elements = {element.id: element for element in board.elements}
    items = tuple(node["items"]) if node["kind"] == "menu" else (node["element"],)
    return Panel(
        node["kind"],
        node.get("title", ""),
        tuple(node.get("open", ())),
        node["keys"],
        items,
        tuple(elements[name].points[0].domain for name in items),
        tuple(len(elements[name].points) for name in items),
        node.get("wraps", True),
        node.get("values_wrap", node["kind"] == "digits"),
        node.get("fast", 1),
        float(node.get("hold_s", 0)),
    )
