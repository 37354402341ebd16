"""A job of bags: what is shared is shared, what is a bag's own stays its own."""

from collections import Counter

import pytest

from tessil.core.brief.choice import Seams
from tessil.core.catalogue.own import OwnMaterial
from tessil.core.choosing import forget, measure
from tessil.core.edits import Edit, applied, edit
from tessil.core.memory.same import same
from tessil.core.numbers.decided import Refused
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import Got, Measured
from tessil.core.panels.learning import panel_swatches
from tessil.core.plan import plan
from tessil.core.project import MOST_IN_A_JOB, Job, OneBag, Project, Shared, job_of
from tessil.core.shapes import SHAPES
from tessil.core.shapes.acts.shaping import reshape
from tessil.core.starting import Answers, brought, copied, first_project, joining
from tessil.core.trouble import CannotPlan
from tessil.files.projectfile import load
from tests.conftest import DEMO, load_bag, tote

F = Fraction
FOUR = ("rehearsal-satchel", "reed-pouch", "march-card-clutch", "mute-sack")


@pytest.fixture
def kit() -> Job:
    return load(DEMO.with_name("kit-of-four.tessil"))


def test_a_project_is_what_is_shared_and_one_bag():
    own = {"nth"}  # which of the bags made alike is in hand, in no file
    assert set(Project.model_fields) - own == set(Shared.model_fields) | set(OneBag.model_fields)
    assert not set(Shared.model_fields) & set(OneBag.model_fields)


def test_the_kit_holds_the_four_demo_bags_and_each_plans_as_it_does_alone(kit):
    """The panels, edges and finished sizes; the heap of prints and scraps is one for all."""
    assert [bag.name for bag in kit.bags] == [
        load_bag(DEMO.with_name(f"{n}.tessil")).name for n in FOUR
    ]
    for at, name in enumerate(FOUR):
        alone, together = plan(load_bag(DEMO.with_name(f"{name}.tessil"))), plan(kit.project(at))
        assert same(together.bag, alone.bag), name
        assert same(together.edging, alone.edging), name
        sizes = [[panel.pieced.values() for panel in made.panels] for made in (together, alone)]
        assert sizes[0] == sizes[1], name
    assert len(kit.shared.scraps) == 12


def test_what_is_shared_changes_for_all_and_the_rest_for_one(kit):
    metric = applied(kit.project(1), edit("", ("units", "metric"), ("bags", 5)))
    job = kit.holding(metric, 1)
    assert [job.project(at).units for at in range(4)] == ["metric"] * 4
    assert [bag.bags for bag in job.bags] == [2, 5, 1, 2]
    assert all(job.bags[at] is kit.bags[at] for at in (0, 2, 3))
    only = applied(kit.project(3), edit("", ("seams.side", F(1, 2))))
    assert kit.holding(only, 3).shared is kit.shared


def by_names(made):
    """What is cut, with the cloths by their names and not by their keys."""
    return Counter(
        (i.id, i.number.value, i.width.value, i.height.value, stock_name(made, i))
        for i in made.items
    )


def stock_name(made, item):
    return item.stock if item.material else made.project.print_of(item.stock).name


def test_the_bags_of_files_are_brought_together_and_each_is_cut_as_it_was_alone(kit):
    job = load(DEMO)
    for name in FOUR[1:]:
        job = brought(job, load(DEMO.with_name(f"{name}.tessil")), iter(()))
    assert [bag.name for bag in job.bags] == [bag.name for bag in kit.bags]
    for at, name in enumerate(FOUR):
        alone = plan(load_bag(DEMO.with_name(f"{name}.tessil")))
        assert by_names(plan(job.project(at))) == by_names(alone), name
    prints = job.shared.prints
    assert len({one.name.casefold() for one in prints}) == len(prints)
    assert len({one.key for one in prints}) == len(prints)


def test_a_cloth_whose_key_another_has_keeps_its_pieces(kit):
    """Its blue is called as our red is: everything of it that was blue is blue still."""
    ours, base = job_of(tote(name="Ours")), tote(name="Theirs")
    swap = {"red": "blue", "blue": "red"}
    prints = tuple(
        one.model_copy(update={"key": swap.get(one.key, one.key), "name": f"Their {one.name}"})
        for one in base.prints
    )
    theirs = job_of(base.model_copy(update={"prints": prints}))
    job = brought(ours, theirs, iter(["fresh"]))
    assert by_names(plan(job.project(0))) == by_names(plan(ours.project()))
    assert by_names(plan(job.project(1))) == by_names(plan(theirs.project()))
    assert job.bags[1].id == "fresh"
    again = brought(job, theirs, iter(["more"]))
    assert len(again.shared.prints) == len(job.shared.prints)
    assert len({bag.id for bag in again.bags}) == 3
    assert len({bag.name for bag in again.bags}) == 3


def test_what_cannot_be_brought_together_is_said(kit):
    own = OwnMaterial(key="own-1", name="Felt", kind="batting", relaxed_mm=2.0)
    ours = job_of(tote(materials=(own,)))
    other = job_of(tote(materials=(own.model_copy(update={"relaxed_mm": 3.0}),)))
    with pytest.raises(CannotPlan, match="“Felt” of their own"):
        brought(ours, other, iter("abc"))
    assert brought(ours, ours, iter("abc")).shared.materials == (own,)
    many = kit.model_copy(update={"bags": kit.bags * 8})
    with pytest.raises(Refused):
        brought(many, many, iter(f"m{n}" for n in range(99)))


def test_a_job_of_one_bag_is_called_as_it_is_and_several_are_counted(kit):
    assert job_of(tote(name="Only one")).title == "Only one"
    assert kit.title == "The band's kit of four"
    assert kit.model_copy(update={"name": ""}).title == "Rehearsal satchel and 3 more"


@pytest.mark.parametrize(("number", "refused"), [(0, True), (1, False), (60, False), (61, True)])
def test_a_job_has_one_bag_to_sixty(number, refused):
    bags = tuple(OneBag(name=f"Bag {at}") for at in range(number))
    assert MOST_IN_A_JOB == 60
    if refused:
        with pytest.raises(Refused):
            Job(bags=bags)
    else:
        assert len(Job(bags=bags).bags) == number


@pytest.mark.parametrize("key", SHAPES)
def test_a_bag_that_joins_is_sewn_of_the_jobs_prints_with_its_first_seams(kit, key):
    half = Seams(side=F(1, 2), bottom=F(1, 2))
    job = kit.holding(applied(kit.project(), edit("", ("first_seams", half))))
    fresh = first_project(Answers(shape=key, width=F(4), height=F(3), thickness=F(1)))
    bag = joining(job, fresh, "mark")
    assert (bag.id, bag.seams) == ("mark", half)
    keys = {cloth.key for cloth in job.shared.prints}
    assert all(set(choices.piecing.prints) <= keys for choices in bag.panels.values())
    assert bag.binding.print in keys | {""}
    grown = job.model_copy(update={"bags": (*job.bags, bag)})
    assert plan(grown.project(4)).bag.finished


def test_without_first_seams_a_bag_keeps_the_usual_ones(kit):
    fresh = first_project(Answers(shape="tote"))
    assert joining(kit, fresh, "m").seams == fresh.seams


def test_a_copy_has_its_own_name_and_mark_and_is_not_measured():
    measured = tote(name="Sack 9", id="a", settled=("brief",))
    job = job_of(measured)
    bag = copied(job, 0, "b")
    assert (bag.id, bag.name, bag.settled, bag.measured) == ("b", "Sack 2", (), {})
    assert bag.panels == measured.panels
    two = job.model_copy(update={"bags": (job.bags[0], bag)})
    assert copied(two, 1, "c").name == "Sack 3"


def test_a_bag_that_joins_two_of_its_name_is_numbered():
    job = job_of(tote(name="Tote for folder"))
    assert joining(job, first_project(Answers(shape="tote")), "m").name == "Tote for folder 2"


def _three():
    project = applied(tote(), edit("", ("bags", 3)))
    project = applied(project, measure(project, "front", "pieced", Got(width=F(15), height=F(17))))
    second = project.model_copy(update={"nth": 2})
    return applied(second, measure(second, "front", "quilted", Got(width=F(14))))


def test_what_one_of_the_bags_measured_is_its_own():
    project = _three()
    assert project.measured["front"].quilted == Got()
    assert project.copies == {"2": {"front": Measured(quilted=Got(width=F(14)))}}
    all_, second, third = (
        plan(project.model_copy(update={"nth": nth})).panel("front") for nth in (0, 2, 3)
    )
    assert second.quilted.width.value == F(14)
    assert second.pieced.values() == all_.pieced.values() == (F(15), F(17))  # those of all alike
    assert second.quilted.height.value == all_.quilted.height.value
    assert same(third.quilted, all_.quilted)


def test_amounts_are_those_of_the_bags_in_hand():
    project = _three()
    numbers = {
        nth: {
            item.id: item.number.whole
            for item in plan(project.model_copy(update={"nth": nth})).items
        }
        for nth in (0, 2)
    }
    assert numbers[0] == {key: 3 * number for key, number in numbers[2].items()}


def test_a_single_bag_is_forgotten_box_by_box():
    project = _three()
    bare = applied(project, Edit("", (forget(project, "front", "quilted"),)))
    assert bare.copies == {}
    assert bare.measured == project.measured
    more = applied(project, measure(project, "back", "trimmed", Got(height=F(12))))
    assert set(more.copies["2"]) == {"front", "back"}
    assert set(applied(more, Edit("", (forget(more, "front", "quilted"),))).copies["2"]) == {"back"}


def test_a_single_bag_teaches_under_its_own_name():
    project = _three()
    learning = plan(project).learning
    assert learning.name.endswith(" 2")
    assert learning.source.endswith("#2")
    assert [task.panel.key for task in learning.tasks] == ["front"]
    (entry,) = panel_swatches(learning, "2026-05-01")
    assert (entry.width_before, entry.width_after, entry.height_after) == (F(15), F(14), None)
    assert entry.height_before == F(111, 8)  # quilted high is not measured: as it is trimmed


def test_what_single_bags_measured_stays_with_their_shape():
    project = _three()
    other = applied(project, reshape(project, SHAPES["flat-pouch"]))
    assert other.copies == {}
    back = applied(other, reshape(other, SHAPES["tote"]))
    assert back.copies == project.copies
