"""Three ways to work the screens, each counting what the hand does: a mouse, keys alone, a thumb on a phone."""

import re

from playwright.sync_api import Locator, Page, expect

PHONE = {"viewport": {"width": 390, "height": 844}, "has_touch": True, "is_mobile": True}
# What is one stop of the Tab key, with arrows inside.
_ONE_STOP = "[role=toolbar], [role=radiogroup], [role=menu], ul[aria-label]"
_MOST_STEPS = 80


class Mouse:
    """A pointer and a keyboard: a press and a text are an action each."""

    def __init__(self, page: Page) -> None:
        self.page = page
        self.actions = 0

    def _go(self, to: Locator) -> None:
        to.click()

    def press(self, to: Locator) -> None:
        """Press something."""
        self.actions += 1
        self._go(to)

    def write(self, to: Locator, text: str, end: str = "") -> None:
        """Type over what stands in a field; a key that ends it is an action of its own."""
        self.actions += 1
        to.fill(text)
        if end:
            self.key(end)

    def key(self, key: str) -> None:
        """Press one key."""
        self.actions += 1
        self.page.keyboard.press(key)

    def pick(self, label: str, text: str) -> None:
        """Pick by part of a name: the first that matches is taken by Enter."""
        field = self.page.get_by_role("combobox", name=label, exact=True)
        self.write(field, text)
        self.page.get_by_role("option").first.wait_for()
        self.key("Enter")

    def slide(self, rule: Locator, ohm: int, ohms: str) -> None:
        """Put the slide rule's cursor on a value by a press at its tick."""
        tick = self._tick(rule, ohm)
        self.actions += 1
        self.page.mouse.click(*tick)
        self._on(rule, ohms)

    def _tick(self, rule: Locator, ohm: int) -> tuple[float, float]:
        box = rule.locator(f"[data-tick='ohm {ohm}'] line").bounding_box()
        return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2

    def _on(self, rule: Locator, ohms: str) -> None:
        expect(rule).to_have_attribute("aria-valuetext", re.compile("^" + re.escape(ohms) + ","))


class Thumb(Mouse):
    """A thumb on a phone: taps and texts."""

    def _go(self, to: Locator) -> None:
        to.tap()

    def slide(self, rule: Locator, ohm: int, ohms: str) -> None:
        """Drag the cursor by its grip to the value's tick."""
        rule.locator("[data-grip] rect").scroll_into_view_if_needed()
        grip = rule.locator("[data-grip] rect").bounding_box()
        y = grip["y"] + grip["height"] / 2
        drag(self.page, (grip["x"] + grip["width"] / 2, y), (self._tick(rule, ohm)[0], y))
        self.actions += 1
        for _ in range(3):
            # A thumb is wider than a step.
            self.page.wait_for_timeout(300)
            cursor, tick = rule.locator("[data-cursor]").bounding_box(), self._tick(rule, ohm)[0]
            if abs(cursor["x"] + cursor["width"] / 2 - tick) < 2:
                break
            side = "larger" if cursor["x"] < tick else "smaller"
            self.press(self.page.get_by_role("button", name=f"one step {side}"))
        self._on(rule, ohms)


class Keys(Mouse):
    """Keys alone: every Tab, arrow and Enter counts, and a text as one."""

    def _reach(self, to: Locator) -> None:
        to.wait_for()
        el = to.element_handle()
        for _ in range(_MOST_STEPS):
            where = el.evaluate(
                """(el, one) => {
                    const at = document.activeElement;
                    if (at === el) return "here";
                    const stop = at?.closest(one);
                    if (stop && stop.contains(el)) {
                        const back = at.compareDocumentPosition(el) & Node.DOCUMENT_POSITION_PRECEDING;
                        return back ? "ArrowUp" : "ArrowDown";
                    }
                    const back = at && at !== document.body &&
                        at.compareDocumentPosition(el) === Node.DOCUMENT_POSITION_PRECEDING;
                    return back ? "Shift+Tab" : "Tab";
                }""",
                _ONE_STOP,
            )
            if where == "here":
                return
            across = el.evaluate("(el) => el.closest('[role=toolbar]') !== null")
            if across:
                where = {"ArrowDown": "ArrowRight", "ArrowUp": "ArrowLeft"}.get(where, where)
            self.key(where)
        raise AssertionError(f"{to} was not reached in {_MOST_STEPS} presses")

    def _go(self, to: Locator) -> None:
        self.actions -= 1
        self._reach(to)
        self.key("Space" if to.get_attribute("type") == "radio" else "Enter")

    def write(self, to: Locator, text: str, end: str = "") -> None:
        """Go to the field and type over what stands in it."""
        self._reach(to)
        self.page.keyboard.press("Control+a")
        self.actions += 1
        self.page.keyboard.type(text)
        if end:
            self.key(end)

    def slide(self, rule: Locator, ohm: int, ohms: str) -> None:
        """The key of the rule, then arrows to the value."""
        if self.page.evaluate("document.activeElement.matches('input')"):
            # Out of the panel's field: the panel closes and keeps.
            self.key("Escape")
        if not rule.evaluate("(el) => document.activeElement === el"):
            self.key("s")
        now = rule.locator("[data-cursor]").bounding_box()
        ahead = self._tick(rule, ohm)[0] > now["x"]
        for _ in range(_MOST_STEPS):
            if rule.get_attribute("aria-valuetext").replace("\u00a0", " ").startswith(ohms + ","):
                return
            self.key("ArrowRight" if ahead else "ArrowLeft")
        raise AssertionError(f"{ohms} was not reached")


def drag(page: Page, start: tuple[float, float], end: tuple[float, float], steps: int = 8) -> None:
    """A finger put down, moved and lifted, as the browser's own touch input."""
    session = page.context.new_cdp_session(page)

    def send(kind: str, at: tuple[float, float] | None) -> None:
        points = [] if at is None else [{"x": at[0], "y": at[1]}]
        session.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": points})

    send("touchStart", start)
    for k in range(1, steps + 1):
        share = k / steps
        send("touchMove", (start[0] + (end[0] - start[0]) * share, start[1] + (end[1] - start[1]) * share))
    send("touchEnd", None)
    session.detach()
