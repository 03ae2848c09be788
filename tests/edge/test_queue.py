import asyncio
from collections.abc import Sequence
from datetime import date
from threading import Event

import pytest

from tests.loops import ended
from tests.samples import NOW, store
from uptick.core.release.manifest import wire_basket
from uptick.edge import queue as module
from uptick.edge.needs import INLINE, LOADED
from uptick.edge.queue import CommitQueue, Full, Unwritable
from uptick.edge.script import Later, ScriptCode, build_script
from uptick.usecases.serving import Served, StoreBatch, Unavailable


class Slow:
    """Writes groups when told to; remembers them."""

    def __init__(self) -> None:
        self.groups: list[int] = []
        self.gate = Event()
        self.gate.set()

    def write(self, batches: Sequence[StoreBatch], today: date) -> int:
        self.gate.wait(5)
        self.groups.append(len(batches))
        return 0


def batch() -> StoreBatch:
    return StoreBatch(1, (), (), {"x": 1})


def test_what_comes_together_is_written_together() -> None:
    async def run() -> list[int]:
        writer = Slow()
        queue = CommitQueue(writer, lambda: NOW)
        queue.start()
        await asyncio.gather(*(queue.commit(batch()) for _ in range(50)))
        await queue.stop()
        return writer.groups

    groups = ended(run())
    assert sum(groups) == 50
    assert len(groups) < 10


def test_nobody_is_answered_before_the_write_is_over() -> None:
    async def run() -> None:
        writer = Slow()
        writer.gate.clear()
        queue = CommitQueue(writer, lambda: NOW)
        queue.start()
        waiting = asyncio.create_task(queue.commit(batch()))
        await asyncio.sleep(0.05)
        assert not waiting.done()
        writer.gate.set()
        await waiting
        await queue.stop()

    ended(run())


class Picky(Slow):
    """Cannot write a group in which one batch is bad; counts how often it tried."""

    def __init__(self, error: Exception) -> None:
        super().__init__()
        self._error = error
        self.tries = 0

    def write(self, batches: Sequence[StoreBatch], today: date) -> int:
        self.tries += 1
        if any(batch.refused.get("bad") for batch in batches):
            raise self._error
        self.groups.append(len(batches))
        return 0


def outcomes(writer: Picky, bad: int, of: int) -> list[object]:
    async def run() -> list[object]:
        queue = CommitQueue(writer, lambda: NOW)
        waiting = [queue.commit(StoreBatch(1, (), (), {"bad" if n == bad else "x": 1})) for n in range(of)]
        gathered = asyncio.gather(*waiting, return_exceptions=True)
        await asyncio.sleep(0)
        queue.start()
        ended = await gathered
        await queue.stop()
        return list(ended)

    return ended(run())


def test_a_batch_that_cannot_be_written_fails_alone() -> None:
    writer = Picky(ValueError("a NUL"))
    told = outcomes(writer, bad=13, of=60)
    assert [n for n, answer in enumerate(told) if answer is not None] == [13]
    assert isinstance(told[13], Unwritable)
    assert told[13].why["error"] == "ValueError"
    assert sum(writer.groups) == 59
    # Halved six times and no more: 60 batches are 2 to the power of 6 at most.
    assert writer.tries <= 1 + 2 * 6


def test_while_the_database_is_away_nothing_is_divided() -> None:
    writer = Picky(Unavailable("gone"))
    told = outcomes(writer, bad=3, of=20)
    assert all(isinstance(answer, Unavailable) for answer in told)
    assert writer.tries == 1


def test_a_full_queue_says_so_and_what_waits_is_written_before_the_end(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(module, "_MOST_WAITING", 3)

    async def run() -> list[int]:
        writer = Slow()
        queue = CommitQueue(writer, lambda: NOW)
        waiting = [asyncio.create_task(queue.commit(batch())) for _ in range(3)]
        await asyncio.sleep(0)
        with pytest.raises(Full):
            await queue.commit(batch())
        await queue.stop()
        await asyncio.gather(*waiting)
        return writer.groups

    assert sum(ended(run())) == 3


def script_code(main: str) -> ScriptCode:
    def file(name: str) -> Later:
        return Later.of(name.encode())

    files = {piece.file: file(piece.file) for piece in LOADED}
    return ScriptCode(main, file("later"), {piece.file: piece.file for piece in INLINE}, files)


def test_the_script_file_is_named_by_its_content_and_safe_in_old_engines() -> None:
    def served(text: str) -> Served:
        return Served(
            1, store(), 1, {"note": text, "looks": [], "rules": [], "words": {}, "places": {}}, {"trials": []}, text
        )

    code = script_code("code")
    one, other = build_script(code, served("a\u2028b"), "http://e"), build_script(code, served("c"), "http://e")
    assert one.etag != other.etag
    assert one.etag == build_script(code, served("a\u2028b"), "http://e").etag
    assert "\u2028" not in one.plain.decode()
    assert "\\u2028" in one.plain.decode()


def test_a_file_that_only_one_placement_needs_is_told_where_a_release_has_that() -> None:
    code = script_code("main")
    told = code.files_for({"places": {"sticky_bar": {}, "over_picture": {}}})
    assert told == {"later": code.later.told, "more": {"bar": code.files["bar"].told, "over": code.files["over"].told}}
    assert code.files_for({"places": {"strip": {}}}) == {"later": code.later.told, "more": {}}
    rows: list[dict[str, object]] = [{"row": {"seen": 4}}]
    assert set(code.files_for({"places": {}, "pointed": rows})["more"]) == {"row", "recent", "find"}
    # Where a button stands at a spot that was pointed at, spots are found before anything stands.
    asks = {"places": {}, "looks": [{"message": {"href": ["tel:+442079460018"]}}, {}]}
    assert set(code.files_for(asks)["more"]) == {"message"}
    shows = {"places": {}, "looks": [{"sheet": {"css": ""}, "show": {}}, {"sheet": {"css": ""}, "closer": {}}]}
    assert set(code.files_for(shows)["more"]) == {"sheet", "show", "closer", "choices"}
    # A version under trial may open what the release does not.
    tried = {"places": {}, "trials": [{"B": {"looks": {"strip": {"": {"show": {}, "sheet": {"css": ""}}}}}}]}
    assert set(code.files_for(tried)["more"]) == {"sheet", "show"}
    assert set(code.files_for({"places": {}, "pointed": [*rows, {}]})["more"]) == {"row", "recent"}
    # What is being drawn may come to need any of them.
    assert set(code.files_for({"places": {}, "draft": True})["more"]) == {piece.file for piece in LOADED} - {
        "find_later"
    }
    assert code.file(code.files["floating"].name) is code.files["floating"]
    assert code.file("else.js") is None


def test_a_store_is_sent_only_the_pieces_that_it_uses() -> None:
    code = script_code("main")
    usual = wire_basket(store().connection)
    nothing = {"words": {}, "places": {}, "rules": [], "trials": [], "basket": usual}
    plain: dict[str, object] = {"looks": [{"quantity": None, "second": None}], **nothing}
    running = {"running": True, "reach": {}, "B": {"looks": {}, "words": {}}}
    silent = {**usual, "read": None}
    assert code.for_store({**plain, "basket": {**silent, "option_fields": []}}) == "main;const pieces={}"
    assert code.for_store({**plain, "basket": silent}) == "main;options;const pieces={options:UpOptions}"
    assert "first" in code.for_store(plain)
    assert "fonts" in code.for_store({**plain, "fonts": [{"family": "Up"}]})
    # Who looks is asked before buttons stand only where something depends on it.
    assert "shopper" not in code.for_store(plain).split(";")
    assert "shopper" in code.for_store({**plain, "trials": [running]}).split(";")
    ruled = {**plain, "rules": [{"reach": {}}], "looks": [{"quantity": None, "icon": {"paths": []}}]}
    assert {"rules", "icon"} <= {*code.for_store(ruled).split(";")}
    assert "live" in code.for_store({**plain, "bar": "css"})
    page = {**usual, "read": {"kind": "page", "path": "/basket", "selector": ".count"}}
    assert "reads" in code.for_store({**plain, "basket": page})
    assert "reads" in code.for_store({**plain, "basket": {**usual, "read": {**usual["read"], "items": "lines"}}})
    assert "live" in code.for_store({**plain, "words": {"ready": {"en-GB": ["Buy ", {"v": "price"}]}}})
    assert "live" not in code.for_store({**plain, "words": {"ready": {"en-GB": ["Buy"]}}})
    assert "deal" in code.for_store({**plain, "trials": [running]})
    # A link may force a version before the trial runs.
    assert "deal" in code.for_store({**plain, "trials": [{**running, "running": False}]})
    assert "deal" not in code.for_store({**plain, "trials": []})
    assert "find" in code.for_store({**plain, "pointed": [{"place": "strip", "selector": ".x", "where": "after"}]})
    assert "find" not in code.for_store({**plain, "pointed": []})
    assert "second" in code.for_store({**plain, "looks": [{"quantity": None, "second": {"en-GB": ["Now"]}}]})
    assert all(piece in code.for_store({**plain, "draft": True}) for piece in ("frame", "quantity", "second"))
    assert "quantity" in code.for_store({**plain, "looks": [{"quantity": {"least": 1}}]})
    assert "kind" in code.for_store({**plain, "rules": [{"reach": {"shoppers": ["new"]}}]})
    boxed = {"running": False, "reach": {}, "B": {"words": {}, "looks": {"strip": {"": {"quantity": {"least": 1}}}}}}
    assert "quantity" in code.for_store({**plain, "trials": [boxed]})
