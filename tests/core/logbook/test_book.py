"""The logbook: what a swatch may say, what is learned, what flows in from measured panels."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tessil.core.catalogue import material
from tessil.core.catalogue.prints import Photo
from tessil.core.choosing import measure
from tessil.core.edits import applied
from tessil.core.logbook.book import EMPTY, MOST_PHOTOS, Book, Swatch
from tessil.core.logbook.flow import knowledge_of, lean_of, lessons_of, losses, trust
from tessil.core.logbook.merge import merged_books
from tessil.core.logbook.views import stack_name, stack_view, stacks_of
from tessil.core.numbers.decided import Refused
from tessil.core.numbers.exact import Fraction
from tessil.core.numbers.workings import Basis
from tessil.core.panels.choice import Got
from tessil.core.panels.learning import panel_swatches, with_panels
from tessil.core.plan import plan
from tessil.core.quilting.shrinkage import prior_of
from tests.conftest import tote, with_front

F = Fraction
COTTON = (material("cotton-batting"),)


def _swatch(**more):
    base = {"width_after": F(39, 4), "height_after": F(79, 8)}
    return Swatch(**base | more)


def _miss(*swatches):
    return knowledge_of(Book(swatches=swatches)).fitted(COTTON).miss((1.0, 1.0, 0.0))


@pytest.mark.parametrize(
    ("fields", "says"),
    [
        ({"width_after": F(11)}, "does not make cloth grow"),
        ({"width_after": F(7)}, "More than a quarter"),
        ({"gap": F(5)}, "It takes 3|takes 3 at least"),
        ({"gap": F(40)}, "0 or fewer lines"),
        ({"date": "yesterday"}, "year-month-day"),
        ({"angle": 720}, "between −90 and 90"),
        ({"width_before": F(0)}, "more than zero"),
        ({"minutes": -3}, "greater than 0"),
    ],
)
def test_a_swatch_that_contradicts_itself_is_refused_in_words(fields, says):
    with pytest.raises(Refused, match=says):
        _swatch(**fields)


def test_three_swatches_of_ones_own_narrow_the_range():
    mine = [
        _swatch(gap=gap, width_after=F(10) * (1 - loss))
        for gap, loss in ((F(1), F(13, 1000)), (F(1, 2), F(26, 1000)), (F(3, 2), F(9, 1000)))
    ]
    ranges = [_miss(*mine[:number]) for number in range(4)]
    assert ranges == sorted(ranges, reverse=True)
    assert ranges[3] < 0.7 * ranges[0]


def test_figures_say_that_they_rest_on_swatches():
    book = Book(swatches=(_swatch(), _swatch(gap=F(3, 4))))
    guessed, learned = plan(tote()).panel("front"), plan(tote(), book).panel("front")
    assert guessed.draw.x.expected.basis is Basis.GUESS
    assert learned.draw.x.expected.basis is Basis.SWATCHES
    assert guessed.needed.width.basis is Basis.GUESS


def test_swatches_of_other_layers_teach_nothing_here():
    foam = Book(swatches=(_swatch(batting="sew-in-foam"),))
    one, other = (plan(tote(), book).panel("front").draw.x for book in (foam, EMPTY))
    assert (one.expected.value, one.miss.value) == (other.expected.value, other.miss.value)


def test_a_swatch_left_out_is_not_learned_from():
    assert _miss(_swatch(used=False)) == _miss()


def test_alike_swatches_leave_the_rest_to_the_starting_guess_and_say_so():
    same = [_swatch(width_after=F(10) * (1 - F(13, 1000)), height_after=None)] * 6
    fitted = knowledge_of(Book(swatches=tuple(same))).fitted(COTTON)
    prior = prior_of(COTTON)
    assert fitted.rank == 1
    assert fitted.mean[2] == pytest.approx(prior.mean[2])
    words = trust(fitted, prior).words
    assert words.startswith("6 swatches, ± ")
    assert "too alike" in words
    assert "starting guess" in trust(knowledge_of(EMPTY).fitted(COTTON), prior).words


@pytest.mark.parametrize("number", [1, 4, 12])
def test_the_words_say_how_many_and_how_sure(number):
    gaps = [F(8 + 2 * n, 8) for n in range(number)]
    swatches = tuple(_swatch(gap=gap, name=f"{gap}") for gap in gaps if gap < 3)
    fitted = knowledge_of(Book(swatches=swatches)).fitted(COTTON)
    said = trust(fitted, prior_of(COTTON))
    assert said.swatches == len(swatches)
    assert f"± {said.miss * 100:.1f} %" in said.words


@given(st.integers(-40, 40).map(lambda n: n / 1000))
def test_the_lean_is_read_off_the_diagonals(lean):
    """A square of 10 sheared by so much: its diagonals by Pythagoras."""
    rising = ((10 + 10 * lean) ** 2 + 100) ** 0.5
    falling = ((10 - 10 * lean) ** 2 + 100) ** 0.5
    swatch = Swatch.model_construct(
        width_before=F(10),
        height_before=F(10),
        width_after=F(10),
        height_after=F(10),
        rising_before=F(200**0.5),
        falling_before=F(200**0.5),
        rising_after=F(rising),
        falling_after=F(falling),
    )
    assert lean_of(swatch) == pytest.approx(lean, abs=1e-9)


def test_a_slanted_swatch_teaches_of_its_lean_only_if_its_diagonals_are_measured():
    slanted = _swatch(pattern="diagonal", gap=F(1))
    assert len(losses(slanted, 0)) == 2
    more = {f"{way}_{when}": F(14) for way in ("rising", "falling") for when in ("before", "after")}
    assert len(losses(_swatch(pattern="diagonal", gap=F(1), **more), 0)) == 3


def test_a_far_off_swatch_is_found_with_its_leverage():
    good = [
        _swatch(gap=gap, width_after=F(10) * (1 - F(13, 1000) / gap), name=str(gap))
        for gap in (F(1, 2), F(3, 4), F(1), F(5, 4), F(3, 2), F(2))
    ]
    bad = _swatch(gap=F(1), width_after=F(9), name="mismeasured")
    view = stack_view(Book(swatches=(*good * 3, bad)), "cotton-batting", COTTON)
    assert view.outliers() == (18,)
    assert all(0 < entry.leverage <= 1 for entry in view.residuals)
    assert {point.swatch for point in view.points if point.outlies} == {18}


def test_the_pace_comes_from_timed_swatches():
    assert knowledge_of(EMPTY).pace.basis is Basis.GUESS
    timed = _swatch(gap=F(1), minutes=10)  # ten lines of 10 in in ten minutes
    pace = knowledge_of(Book(swatches=(timed,))).pace
    assert pace.value == 10
    assert pace.basis is Basis.SWATCHES


def test_stacks_are_listed_as_they_come_and_kept_for_one_book():
    book = Book(swatches=(_swatch(batting="sew-in-foam"), _swatch(), _swatch(gap=F(2))))
    assert stacks_of(book) == ("sew-in-foam", "cotton-batting")
    assert lessons_of(book) is lessons_of(book)
    assert lessons_of(book.model_copy()) is not lessons_of(book)


# -- panels of real projects -----------------------------------------------------------------


def _measured(project, pieced, quilted, panel="front"):
    project = applied(project, measure(project, panel, "pieced", Got(**pieced)))
    return applied(project, measure(project, panel, "quilted", Got(**quilted)))


def test_a_panel_measured_before_and_after_teaches_the_others_of_its_project():
    project = _measured(
        tote(id="mine"), {"width": F(16), "height": F(16)}, {"width": F(31, 2), "height": F(127, 8)}
    )
    before, after = plan(tote(id="mine")), plan(project)
    assert after.panel("front").quilted.width.value == F(31, 2)  # what was measured wins
    assert after.panel("back").draw.x.expected.basis is Basis.SWATCHES
    assert after.panel("back").draw.x.expected.value > before.panel("back").draw.x.expected.value


def test_only_one_rung_measured_teaches_nothing():
    project = applied(tote(), measure(tote(), "front", "quilted", Got(width=F(15))))
    assert plan(project).panel("back").draw.x.expected.basis is Basis.GUESS


def test_measured_panels_come_into_the_book_once_and_are_brought_up_to_date():
    project = _measured(tote(id="mine"), {"width": F(16)}, {"width": F(63, 4)})
    made = plan(project)
    book = with_panels(EMPTY, made.learning, "2026-05-01")
    (entry,) = book.swatches
    assert entry.source == "mine/front"
    assert (entry.width_before, entry.width_after, entry.height_after) == (16, F(63, 4), None)
    assert [(line.angle, line.gap) for line in entry.sewn] == [
        (90.0, made.panel("front").quilt.sets[0].gap.value)
    ]
    assert with_panels(book, made.learning, "2026-06-01") is book
    later = _measured(tote(id="mine"), {"width": F(16)}, {"width": F(31, 2)})
    changed = plan(later, book)
    again = with_panels(book, changed.learning, "2026-06-01")
    (entry,) = again.swatches
    assert (entry.date, entry.width_after) == ("2026-05-01", F(31, 2))
    # Its own entry does not count twice, and other projects learn from it.
    alone = plan(later)
    both = [p.panel("back").draw.x for p in (changed, alone)]
    assert both[0].expected.value == both[1].expected.value
    assert both[0].miss.value == both[1].miss.value
    assert plan(tote(id="other"), again).panel("front").draw.x.expected.basis is Basis.SWATCHES


def test_a_panel_that_grew_is_not_learned_from():
    project = _measured(tote(id="mine"), {"width": F(15)}, {"width": F(16)})
    made = plan(project)
    assert panel_swatches(made.learning, "") == ()
    assert made.panel("back").draw.x.expected.basis is Basis.GUESS


def test_a_leaning_flap_stands_straight_once_half_the_lines_go_the_other_way():
    leaning = with_front(tote(), ("quilting.pattern", "diagonal"), ("quilting.gap", F(1, 2)))
    made = plan(leaning)
    assert abs(made.panel("front").leans.value) > F(1, 4)
    (snag,) = [s for s in made.snags if s.key in ("quilt.lean.front", "quilt.leans.front")]
    after = plan(applied(leaning, snag.fixes[0]))
    assert after.panel("front").leans is None or after.panel("front").leans.value == 0
    assert not any(s.key.startswith("quilt.lean") for s in after.snags)


def test_closer_lines_change_lines_thread_outline_and_pieced_size():
    wide, close = (
        plan(with_front(tote(), ("quilting.gap", gap))).panel("front") for gap in (F(1), F(1, 2))
    )
    assert len(close.quilt.lines) > 1.8 * len(wide.quilt.lines)
    assert close.sewing.thread.value > 1.8 * wide.sewing.thread.value
    assert close.draw.x.expected.value > wide.draw.x.expected.value
    assert close.needed.width.value > wide.needed.width.value


def test_a_project_without_an_id_does_not_count_its_own_panels_twice():
    project = _measured(tote(), {"width": F(16)}, {"width": F(63, 4)})
    made = plan(project)
    book = with_panels(EMPTY, made.learning, "2026-05-01")
    again = plan(project, book).panel("back").draw.x
    assert again.miss.value == made.panel("back").draw.x.miss.value


def test_two_books_are_put_together():
    one, two, three = (_swatch(name=name) for name in ("one", "two", "three"))
    base = Book(swatches=(one, two))
    ours, theirs = Book(swatches=(two, three)), Book(swatches=(one, two, _swatch(name="four")))
    both = merged_books(base, ours, theirs)
    assert [swatch.name for swatch in both.swatches] == ["two", "four", "three"]
    assert merged_books(base, ours, base) is ours


def test_photos_are_bounded():
    photo = Photo(data="aGVsbG8gdGhlcmU=", wide=4, high=4)
    with pytest.raises(Refused, match="photos at most"):
        Book(swatches=tuple(_swatch(photo=photo) for _ in range(MOST_PHOTOS + 1)))


def test_what_is_shown_of_a_stack_by_value():
    """The rise is the root of ⅜ q, its error by the derivative; across 2 in: q / 4 + d / 2."""
    book = Book(swatches=(_swatch(), _swatch(gap=F(1, 2), width_after=F(38, 4)), _swatch()))
    view = stack_view(book, "cotton-batting", COTTON)
    q, d, _ = view.fitted.mean
    assert view.rise_mm() == pytest.approx((3 / 8 * q) ** 0.5 * 25.4)
    least, expected, most = view.across(2.0)
    assert expected == pytest.approx(q / 4 + d / 2)
    assert most - expected == pytest.approx(view.fitted.miss((0.25, 0.5, 0.0)))
    assert least == pytest.approx(max(2 * expected - most, 0.0))
    rise, draw, along = view.errors()
    steps = [view.fitted.cov[at][at] ** 0.5 for at in range(3)]
    more = ((3 / 8 * (q + 1e-7)) ** 0.5 - (3 / 8 * q) ** 0.5) * 25.4 / 1e-7
    assert rise == pytest.approx(more * steps[0], rel=1e-3)
    assert (draw, along) == (pytest.approx(steps[1] * 25.4), pytest.approx(steps[2]))
    assert [(point.gap, point.swatch) for point in view.points] == [(1, 0), (0.5, 1), (1, 2)]
    assert view.points[0].loss == pytest.approx(1 / 40)  # 9¾ of 10
    assert view.points[1].loss == pytest.approx(1 / 20)


def test_a_stack_is_called_by_its_layers():
    known = {one.key: one for one in (material("cotton-batting"), material("fusible-fleece"))}
    assert stack_name("cotton-batting", known) == "Cotton batting"
    assert stack_name("cotton-batting+fusible-fleece", known) == (
        "Cotton batting and Fusible fleece"
    )
    assert stack_name("of-one-s-own", known) == "No batting"
    book = Book(swatches=(_swatch(batting="b"), _swatch(batting="a"), _swatch(batting="b")))
    assert stacks_of(book) == ("b", "a")
