"""A job in its file: older files as jobs of one bag, hostile ones in a sentence, reports of all."""

import csv
import io
import json
from contextlib import suppress

import pytest

from tessil.cli import main
from tessil.core.cutting.acts.whole import lots_of, plan_whole
from tessil.core.making.acts.whole import making_of
from tessil.core.making.choice import Made
from tessil.core.plan import plan
from tessil.core.project import FORMAT
from tessil.core.trouble import BrokenFile, NewerFile
from tessil.files.jobreport import job_cut_csv, job_data, job_strips_csv, job_text
from tessil.files.projectfile import from_text, is_project, load, save, to_text
from tessil.files.report import check_text, cut_csv, report_data, report_text
from tests.conftest import DEMO, flat_text, job_tote, load_bag, tote

KIT = DEMO.with_name("kit-of-four.tessil")


def _spoilt(**changes):
    return json.dumps({**json.loads(KIT.read_text("utf-8")), **changes})


@pytest.mark.parametrize("number", [1, 2, 3, 4])
def test_an_older_file_is_a_job_of_one_bag(number):
    data = {**json.loads(flat_text(tote())), "format": number}
    if number < 3:
        for choices in data["panels"].values():
            choices["layers"] = {"batting": "cotton-batting", "backing": "none"}
    job = from_text(json.dumps(data))
    assert (job.format, FORMAT, len(job.bags), job.name) == (14, 14, 1, "")
    assert job.project().name == tote().name
    assert job.shared.prints == tote().prints


def test_a_job_from_before_single_bags_were_measured(tmp_path):
    data = json.loads(KIT.read_text("utf-8"))
    for bag in data["bags"]:
        bag.pop("copies", None)
    job = from_text(json.dumps({**data, "format": 5}))
    assert [bag.copies for bag in job.bags] == [{}] * 4
    assert job.format == FORMAT
    spoilt = data["bags"][0] | {"copies": {"0": {}}}
    with pytest.raises(BrokenFile, match="copies"):
        from_text(json.dumps({**data, "bags": [spoilt]}))


@pytest.mark.parametrize(
    ("shared", "wide"),
    [
        ({"units": "metric"}, "11 in"),  # as it was begun, in whole inches
        ({"units": "metric", "rounding": "inch"}, None),
        ({"units": "inch"}, None),
        ({"units": "inch", "rounding": "metric"}, "11 in"),
    ],
)
def test_a_bag_begun_in_centimetres_before_they_were_round_keeps_its_size(shared, wide):
    data = json.loads(KIT.read_text("utf-8"))
    bag = data["bags"][0] | {
        "shape": {"kind": "tote", "sizes": {"depth": "5 in"}, "way": "finished"}
    }
    old = {**data, "format": 13, "shared": {**data["shared"], **shared}, "bags": [bag]}
    sizes = from_text(json.dumps(old)).bags[0].shape.sizes
    assert sizes.get("width") == (None if wide is None else 11)
    assert sizes["depth"] == 5  # what was typed
    for broken in ({"sizes": 3}, {"kind": []}, None):
        spoilt = {**old, "bags": [{**bag, "shape": broken}]}
        with suppress(BrokenFile):
            from_text(json.dumps(spoilt))


def test_steps_that_were_ticked_stay_so_though_others_come_before_them():
    """Until format 13 a step was known by its place in a list: a strap that is joined and stiffened
    first has two more."""
    data = json.loads(KIT.read_text("utf-8"))
    making = {
        "done": ["strap.0.strap.fold", "bind.0.bind.own", "bind.2.bind.own", "mark.middles.front"],
        "moved": [["bind.2.bind.own", "strap.0.strap.fold"]],
        "notes": {"strap.0.strap.fold": "bind.0.bind.own"},
        "seconds": {"bind.2.bind.own": 60},
    }
    bag = data["bags"][0] | {"making": making}
    made = from_text(json.dumps({**data, "format": 13, "bags": [bag]})).bags[0].making
    fold, again = "strap.strap.fold", "bind.bind.own.2"
    assert made.done == (fold, "bind.bind.own", again, "mark.middles.front")
    assert made.moved == ((again, fold),)
    assert made.notes == {fold: "bind.0.bind.own"}  # what she wrote
    assert made.seconds == {again: 60}
    kit = load(KIT)
    ticked = [set(plan(kit.project(at)).project.making.done) for at in range(len(kit.bags))]
    for at, done in enumerate(ticked):
        assert done <= {deed.id for deed in making_of(plan(kit.project(at)), Made()).deeds}
    assert any(ticked)


def test_a_job_is_written_and_read_as_it_is(tmp_path):
    kit = load(KIT)
    save(kit, tmp_path / "kit.tessil")
    assert load(tmp_path / "kit.tessil") == kit
    data = json.loads(to_text(kit))
    assert list(data) == ["bags", "format", "name", "shared"]
    assert "prints" not in data["bags"][0]
    assert is_project(tmp_path / "kit.tessil")
    (tmp_path / "kit.txt").write_text(to_text(kit), "utf-8")
    assert is_project(tmp_path / "kit.txt")


@pytest.mark.parametrize(
    ("changes", "kind", "says"),
    [
        ({"bags": []}, BrokenFile, "is a job without a bag: there is nothing to open."),
        ({"bags": [{}] * 61}, BrokenFile, "at bags to make: At most 60 entries go here."),
        (
            {"format": 15},
            NewerFile,
            "was written by a newer Tessil (format 15; this one reads up to 14).",
        ),
        (
            {"bags": [{}, {"colour": 1}]},
            NewerFile,
            "this one knows no entry “bags to make → no. 2 → colour”.",
        ),
        ({"bags": [{"colour": 1}]}, NewerFile, "this one knows no entry “colour”."),
        ({"shared": {"shelf": 1}}, NewerFile, "this one knows no entry “shelf”."),
        (
            {"bags": [{"bags": 0}]},
            BrokenFile,
            "at bags to make: Give a number of bags from 1 to 999.",
        ),
        ({"bags": 3}, BrokenFile, "at bags to make: A list goes here."),
    ],
)
def test_a_job_that_will_not_do_is_told_in_a_sentence(changes, kind, says):
    with pytest.raises(kind) as trouble:
        from_text(_spoilt(**changes), "“kit.tessil”")
    assert says in str(trouble.value)


def test_two_bags_of_one_name_stand_apart_in_the_logbook():
    one = json.loads(to_text(job_tote(name="Twin")))["bags"][0]
    job = from_text(_spoilt(bags=[one, one, {**one, "id": "Twin"}]))
    assert [bag.log_name for bag in job.bags] == ["Twin", "Twin-2", "Twin-3"]


def test_reports_of_one_bag_are_as_they_were_and_of_several_one_after_the_other():
    kit = load(KIT)
    plans = [plan(kit.project(at)) for at in range(4)]
    one = load_bag(DEMO)
    assert job_text(job_tote(), [plan(one)]).startswith(report_text(plan(one)))
    told = job_data(job_tote(), [plan(one)])
    assert {key: value for key, value in told.items() if key != "making"} == report_data(plan(one))
    assert job_cut_csv([plan(one)]) == cut_csv(plan(one))
    text = job_text(kit, plans)
    assert text.startswith("The band's kit of four: 4 bags\n\nRehearsal satchel\n")
    assert all(report_text(made) in text for made in plans)
    data = job_data(kit, plans)
    assert data["job"] == "The band's kit of four"
    assert [bag["name"] for bag in data["bags"]] == [bag.name for bag in kit.bags]
    rows = list(csv.reader(io.StringIO(job_cut_csv(plans))))
    assert rows[0][0] == "bag"
    assert len(rows) == 1 + sum(len(cut_csv(made).splitlines()) - 1 for made in plans)
    assert [row[0] for row in rows[1:]][-1] == "Mute sack"
    strips = list(csv.reader(io.StringIO(job_strips_csv(plans))))
    assert strips[0][0] == "bag"
    assert {row[0] for row in strips[1:]} <= {bag.name for bag in kit.bags}
    told = job_text(kit, plans, check_text)
    assert "Rehearsal satchel\n" in told


def test_the_command_line_reports_all_bags_or_one(capsys, tmp_path):
    assert main(["report", str(KIT), "--format", "json"]) == 0
    assert len(json.loads(capsys.readouterr().out)["bags"]) == 4
    for asked in ("2", "Reed pouch"):
        assert main(["report", str(KIT), "--bag", asked]) == 0
        assert capsys.readouterr().out.startswith("Reed pouch\n")
    assert main(["report", str(KIT), "--bag", "9"]) == 2
    assert "There is no bag “9” in this file: it has 4." in capsys.readouterr().err
    assert main(["check", str(KIT)]) == 0
    assert "Mute sack" in capsys.readouterr().out
    odd = json.loads(KIT.read_text("utf-8"))
    odd["bags"][1]["shape"]["kind"] = "hammock"
    path = tmp_path / "odd.tessil"
    path.write_text(json.dumps(odd), "utf-8")
    assert main(["report", str(path)]) == 2
    assert (
        "Reed pouch: The shape “hammock” is not one this Tessil knows." in capsys.readouterr().err
    )
    assert main(["report", str(path), "--bag", "1"]) == 0


def test_a_job_that_was_cut_tells_it_in_its_report():
    """Two cloths by hand: what the kept plan says is what the report says, in data and in words."""
    job = job_tote()
    plans = [plan(job.project(0))]
    made = plan_whole(lots_of(plans), (), plans[0].marks, 0.0)
    shared = job.shared.model_copy(update={"cutting": made})
    cut = job.model_copy(update={"shared": shared})
    data = job_data(cut, plans)["cutting"]
    assert len(data["cloths"]) == len(made.sheets)
    for told, kept in zip(data["cloths"], made.sheets, strict=True):
        assert [one["x"] for one in told["pieces"]] == [float(one.x) for one in kept.laid]
        assert told["length"] == float(kept.length)
    numbers = [one["number"] for told in data["cloths"] for one in told["cuts"]]
    assert numbers == list(range(1, len(numbers) + 1))
    assert {line["what"] for line in data["shopping"]} >= {told["name"] for told in data["cloths"]}
    text = job_text(cut, plans)
    assert f"How it is cut: {len(made.sheets)} cloths, {len(numbers)} cuts" in text
    assert f"{len(numbers):>5}. " in text
    assert "To buy" in text
    assert "cutting" not in job_data(job, plans)


def test_the_report_tells_the_steps_and_how_the_bag_stands():
    job = job_tote()
    making = making_of(plan(job.project(0)), Made())
    first = making.deeds[0].id
    (bag,) = job.bags
    bag = bag.model_copy(update={"making": Made(done=(first,))})
    begun = job.model_copy(update={"bags": (bag,)})
    plans = [plan(begun.project(0))]
    data = job_data(begun, plans)["making"]
    assert [one["id"] for one in data["steps"]] == [deed.id for deed in making.deeds]
    assert [one["done"] for one in data["steps"]].count(True) == 1
    assert data["next"] == making.deeds[1].id
    assert set(data["state"]) == set(making.deeds[0].gives)
    assert data["broken"] == []
    text = job_text(begun, plans)
    assert "   1. [x] " in text
    assert f"{len(making.deeds):>4}. [ ] finish: Look it over." in text


def test_the_report_carries_time_cost_and_price(capsys):
    folder = KIT.parent
    asked = ["--log", str(folder / "logbook.json"), "--shelf", str(folder / "shelf.json")]
    assert main(["report", str(KIT), "--format", "json", *asked]) == 0
    told = json.loads(capsys.readouterr().out)["reckoning"]
    pouch = next(one for one in told["bags"] if one["name"] == "Reed pouch")
    assert pouch["price"]["value"] == 48
    assert pouch["wage"]["value"] == pytest.approx(
        (48 - pouch["cost"]["value"]) / pouch["hours"]["value"], rel=1e-3
    )
    low, high = pouch["wage_range"]
    assert low < pouch["wage"]["value"] < high
    assert pouch["minutes"]["cut"]["sittings"] == 6
    cost = sum(one["cost"]["value"] for one in pouch["materials"] if one["cost"])
    assert pouch["cost"]["value"] > cost > 3
    number = {one["name"]: one["number"] for one in told["bags"]}
    every = sum(one["number"] * one["hours"]["value"] for one in told["bags"])
    assert told["all"]["hours"] == pytest.approx(every, rel=1e-3)
    cuts = [s for day in told["sittings"] for s in day if s["work"] == "cut"]
    assert {s["bag"]: s["number"] for s in cuts} == number
    assert main(["report", str(KIT), *asked]) == 0
    text = capsys.readouterr().out
    assert "Time, cost and price" in text
    assert "wage an hour" in text
    assert "Sitting 1, " in text
