"""What a maker does with the steps: does them, takes them back, leaves them out, moves them."""

from __future__ import annotations

from tessil.core.bag.deeds import Broken, Deed, Making
from tessil.core.catalogue.prints import Photo
from tessil.core.edits import Edit, edit
from tessil.core.making.acts.whole import standing
from tessil.core.making.choice import MOST_SECONDS, MOST_SEEN, Made
from tessil.core.making.order import broken_at, facts_for, state_after


def done(made: Made, id_: str, seconds: float = 0.0) -> Edit:
    """One step is done; ``seconds`` by the clock are added to what it took before."""
    kept = (*(one for one in made.done if one != id_), id_)
    changes: dict[str, object] = {"done": kept}
    if seconds >= 1:
        took = made.seconds.get(id_, 0) + round(seconds)
        changes["seconds"] = {**made.seconds, id_: min(took, MOST_SECONDS)}
    return edit("Do a step", ("making", made.model_copy(update=changes)))


def undone(made: Made, id_: str) -> Edit:
    """One step is not done."""
    kept = tuple(one for one in made.done if one != id_)
    return edit("Take a step back", ("making", made.model_copy(update={"done": kept})))


def left_out(made: Made, id_: str, out: bool = True) -> Edit:
    """One step is left out, or not any more."""
    others = tuple(one for one in made.skipped if one != id_)
    kept = (*others, id_) if out else others
    words = "Leave a step out" if out else "Take a step in again"
    return edit(words, ("making", made.model_copy(update={"skipped": kept})))


def put_before(made: Made, id_: str, before: str) -> Edit:
    """One step comes before another."""
    kept = (*(move for move in made.moved if move[0] != id_), (id_, before))
    return edit("Move a step", ("making", made.model_copy(update={"moved": kept})))


def put_back(made: Made, id_: str) -> Edit:
    """A step comes where it came from by itself."""
    kept = tuple(move for move in made.moved if move[0] != id_)
    return edit("Put a step back", ("making", made.model_copy(update={"moved": kept})))


def noted(made: Made, id_: str, words: str) -> Edit:
    """What is to be remembered of a step."""
    notes = {key: value for key, value in made.notes.items() if key != id_}
    if words:
        notes[id_] = words
    return edit("Note", ("making", made.model_copy(update={"notes": notes})))


def pictured(made: Made, id_: str, photo: Photo) -> Edit:
    """A photo of how a step looks; of as many steps as are kept, the oldest goes."""
    kept = {key: value for key, value in made.photos.items() if key != id_}
    while len(kept) >= MOST_SEEN:
        kept.pop(next(iter(kept)))
    photos = {**kept, id_: photo}
    return edit("Keep a photo of a step", ("making", made.model_copy(update={"photos": photos})))


def waits_for(making: Making, made: Made, deed: Deed) -> list[Broken]:
    """What keeps a step back as the bag stands now; nothing for one that is done."""
    if deed.id in made.done:
        return []
    return broken_at(deed, standing(making, made.done).facts)


def giver(making: Making, fact: str) -> Deed | None:
    """The step that makes something so."""
    return next((deed for deed in making.deeds if fact in deed.gives), None)


def undone_with(making: Making, made: Made, id_: str) -> tuple[Deed, ...]:
    """A step that went wrong, and every step done since that rests on it: what it made so, and what
    was made of that.  In their order; nothing for a step that is not done."""
    there = [deed for deed in making.deeds if deed.id in made.done]
    lost = {id_} & {deed.id for deed in there}
    while True:
        kept = state_after(deed for deed in there if deed.id not in lost)
        ended = {fact for deed in there if deed.id not in lost for fact in deed.ends}
        more = {
            deed.id
            for deed in there
            if deed.id not in lost and not set(facts_for(deed)) <= kept | ended
        }
        if not more:
            return tuple(deed for deed in there if deed.id in lost)
        lost |= more


def went_wrong(making: Making, made: Made, id_: str) -> tuple[Edit, tuple[Deed, ...]]:
    """A step is to be done again, with all that rests on it."""
    lost = undone_with(making, made, id_)
    gone = {deed.id for deed in lost}
    kept = tuple(one for one in made.done if one not in gone)
    return edit("A step went wrong", ("making", made.model_copy(update={"done": kept}))), lost
