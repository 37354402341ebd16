"""What documents are made of: frozen, checked when asked for, and light until then."""

import pickle
from concurrent.futures import ThreadPoolExecutor
from copy import deepcopy
from typing import Annotated, Any, ClassVar, Literal

import pytest

from tessil.core.catalogue.prints import Print
from tessil.core.numbers import checker
from tessil.core.numbers.decided import Decided, Refused, checks, none_yet, ready, trusted, usual
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.fields import ExactShare, Limits, Money, Size, Then
from tessil.core.project import Job
from tessil.core.starting import FIRST_PRINTS
from tessil.drawing.bands import _windows
from tessil.files import logfile, projectfile, shipped


def _even(value: int) -> int:
    if value % 2:
        raise ValueError("An even number goes here.")
    return value


class Pocket(Decided):
    """A part with one of each kind of field."""

    width: Size
    sides: Literal["sewn", "free"] = "sewn"
    folds: Annotated[int, Limits(ge=0, le=8), Then(_even)] = 2
    loose: ExactShare = Fraction(1, 8)


class Wallet(Decided):
    """A part made of parts."""

    name: Annotated[str, Limits(min_length=1)] = "wallet"
    front: Pocket = Pocket.model_construct(width=Fraction(4))
    pockets: Annotated[tuple[Pocket, ...], Limits(max_length=2)] = ()
    prices: dict[str, Money] = none_yet()
    places: tuple[tuple[Size, int], ...] = ()
    spare: Pocket | None = None

    @checks("name")
    @staticmethod
    def _plainly(value: str) -> str:
        if value == "bag":
            raise ValueError("That is no name.")
        return value.strip()

    @checks()
    @staticmethod
    def _some_price(wallet: Any) -> Any:
        if wallet.name == "sold" and not wallet.prices:
            raise ValueError("It was sold without a price.")
        return wallet


DATA = {
    "front": {"width": "9/2 in", "loose": 0.25},
    "pockets": [{"width": "3 in", "sides": "free"}],
    "prices": {"cloth": "1.50"},
    "places": [["1/2 in", 3]],
    "spare": {"width": "25.4 mm"},
}


def test_plain_data_become_a_part_and_plain_data_again():
    wallet = Wallet.model_validate(DATA)
    assert wallet.front == Pocket(width=Fraction(9, 2), loose=Fraction(1, 4))
    assert wallet.prices == {"cloth": Fraction(3, 2)}
    assert wallet.places == ((Fraction(1, 2), 3),)
    assert wallet.spare.width == 1
    plain = wallet.model_dump(mode="json", short=True)
    assert plain["front"] == {"width": "4 1/2 in", "loose": 0.25}
    assert "name" not in plain
    assert Wallet.model_validate(plain) == wallet
    assert wallet.model_dump(mode="json")["name"] == "wallet"


def test_what_ships_is_read_the_same_without_checking():
    assert trusted(Wallet, DATA) == Wallet.model_validate(DATA)
    assert trusted(Wallet, {"spare": None}) == Wallet()


@pytest.mark.parametrize("path", sorted(shipped.DEMO.glob("*.tessil")), ids=lambda path: path.stem)
def test_the_demo_is_what_its_files_say_to_one_who_checks(path):
    job, book = shipped.demo(path.stem)
    assert job == projectfile.load(path)
    assert book == logfile.load_book(shipped.DEMO / "logbook.json")
    assert projectfile.to_text(job) == projectfile.to_text(projectfile.load(path))


@pytest.mark.parametrize(
    ("wrong", "place", "kind"),
    [
        ({"front": {"width": "0 in"}}, ("front", "width"), "value_error"),
        ({"front": {}}, ("front", "width"), "missing"),
        ({"front": {"width": "1 in", "folds": 3}}, ("front", "folds"), "value_error"),
        ({"front": {"width": "1 in", "folds": 10}}, ("front", "folds"), "less_than_equal"),
        ({"front": {"width": "1 in", "sides": "glued"}}, ("front", "sides"), "literal_error"),
        ({"pockets": [{"width": "1 in"}] * 3}, ("pockets",), "too_long"),
        ({"prices": {"cloth": "-1"}}, ("prices", "cloth"), "value_error"),
        ({"name": ""}, ("name",), "string_too_short"),
        ({"name": "bag"}, ("name",), "value_error"),
        ({"name": "sold"}, (), "value_error"),
        ({"zip": 1}, ("zip",), "extra_forbidden"),
    ],
)
def test_what_is_refused_has_its_place(wrong, place, kind):
    with pytest.raises(Refused) as refused:
        Wallet.model_validate(wrong)
    (entry,) = refused.value.errors()
    assert (entry["loc"], entry["type"]) == (place, kind)
    assert str(place) in str(refused.value)


def test_values_are_checked_where_a_part_is_called_and_taken_where_it_is_made():
    with pytest.raises(Refused):
        Pocket(width=Fraction(-1))
    assert Pocket.model_construct(width=Fraction(-1)).width == -1
    wide = Pocket(width=Fraction(1)).model_copy(update={"width": Fraction(-1)})
    assert (wide.width, wide.folds) == (-1, 2)


def test_a_part_is_frozen():
    pocket = Pocket(width=Fraction(1))
    with pytest.raises(AttributeError, match="frozen"):
        pocket.width = Fraction(2)
    with pytest.raises(AttributeError, match="frozen"):
        del pocket.width
    assert pocket.width == 1


def test_parts_are_told_apart_by_what_they_say():
    one, other = Pocket(width=Fraction(1)), Pocket(width=Fraction(2, 2))
    assert one == other
    assert hash(one) == hash(other)
    assert one != Pocket(width=Fraction(2))
    assert one != {"width": Fraction(1)}
    assert dict(one)["folds"] == 2
    assert repr(one).startswith("Pocket(width=")


def test_no_part_shares_the_entries_of_another():
    for make in (Wallet, Wallet.model_construct):
        one, other = make(), make()
        assert one.prices == other.prices == {}
        assert one.prices is not other.prices
    assert usual(Wallet) is usual(Wallet)


def test_a_part_goes_to_another_program_and_is_copied():
    wallet = Wallet.model_validate(DATA)
    assert pickle.loads(pickle.dumps(wallet)) == wallet
    assert deepcopy(wallet) == wallet
    with pytest.raises(Refused) as refused:
        Wallet(zip=1)
    again = pickle.loads(pickle.dumps(refused.value))
    assert again.errors()[0]["loc"] == ("zip",)


def test_several_at_once_may_ask_for_the_first_check():
    kinds = [type(f"Part{at}", (Pocket,), {"__module__": __name__}) for at in range(6)]
    with ThreadPoolExecutor(6) as hands:
        made = list(hands.map(lambda kind: kind.model_validate({"width": "1 in"}), kinds * 4))
    assert [type(one) for one in made] == kinds * 4
    assert {one.width for one in made} == {1}


def test_what_is_made_ready_is_built_once():
    ready(Wallet)
    built = {kind: checker._ADAPTERS[kind] for kind in (Wallet, Pocket)}
    ready(Wallet)
    Wallet.model_validate(DATA)
    assert all(checker._ADAPTERS[kind] is made for kind, made in built.items())


@pytest.mark.parametrize("cloth", [*FIRST_PRINTS, *_windows().values()], ids=lambda one: one.key)
def test_what_the_program_makes_unchecked_would_be_taken(cloth):
    assert Print(**dict(cloth)) == cloth


class Loose(Decided):
    """A part that leaves aside what it does not know."""

    model_config: ClassVar[dict[str, Any]] = {"extra": "ignore"}

    name: str = ""


def test_a_part_may_leave_aside_what_it_does_not_know():
    assert Loose.model_validate({"name": "x", "more": 1}) == Loose(name="x")


def test_every_field_of_the_document_begins_with_what_it_may_hold():
    data = Job.model_construct().model_dump(mode="json")
    assert Job.model_validate(data) == Job.model_construct()
