"""Every test runs with no screen, in XDG folders of its own."""

import builtins
import gc
import io
import itertools
import json
import os

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from pathlib import Path

import pytest
from hypothesis import Phase, settings

from tessil.core.brief.choice import Held, ShapeChoice
from tessil.core.catalogue.prints import Print
from tessil.core.choosing import choose
from tessil.core.edges.choice import Binding
from tessil.core.edits import applied
from tessil.core.numbers.exact import Fraction
from tessil.core.panels.choice import PanelChoices
from tessil.core.piecing.choice import Piecing
from tessil.core.plan import plan
from tessil.core.project import Job, Project, job_of
from tessil.core.quilting.choice import Quilting
from tessil.core.sandwich.choice import Layers, Ply
from tessil.files.projectfile import from_text, load, save, to_text

# As when the window starts: the toolkit does not read the source of every module that is imported.
builtins.__import__ = getattr(builtins, "__orig_import__", builtins.__import__)
# What fails is made small for a reader, but not for a tool that only asks whether it fails.
SHORT = {"phases": (Phase.explicit, Phase.generate)} if "TESSIL_TESTS_SHORT" in os.environ else {}
HUNT = int(os.environ.get("TESSIL_HUNT", "1"))  # so many times longer, when one looks for faults
settings.register_profile("house", deadline=None, max_examples=25 * HUNT, derandomize=True, **SHORT)
settings.load_profile("house")

DEMO = Path(__file__).parents[1] / "src/tessil/demo/rehearsal-satchel.tessil"


def pytest_collection_finish():
    """What was imported and collected stays: looking through it for garbage again and again took a
    twentieth of the time."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(60_000, 20, 20)


@pytest.fixture(scope="session")
def homes(tmp_path_factory):
    """Paths of folders that nobody has used; most tests make none of them."""
    root = tmp_path_factory.mktemp("homes")
    return (root / str(at) for at in itertools.count())


@pytest.fixture(autouse=True)
def own_folders(homes, monkeypatch):
    home = next(homes)
    for name in ("state", "data", "config"):
        monkeypatch.setenv(f"XDG_{name.upper()}_HOME", str(home / name))
    monkeypatch.setenv("XDG_DOCUMENTS_DIR", str(home / "documents"))


@pytest.fixture(autouse=True)
def no_text_of_one_letter_as_a_fraction():
    """See ``numbers/exact.py``: what the compiled library writes over, and no test may do."""
    yield
    assert io.BytesIO(b"\0.").read(1) == bytearray(1), "Fraction() was given a text of one letter"


def with_front(project: Project, *changes) -> Project:
    """The project with the front's choices changed, by dotted paths below them."""
    front = plan(project).bag.panel("front")
    return applied(project, choose(project, front, "", *changes))


@pytest.fixture
def demo() -> Project:
    return load_bag(DEMO)


def load_bag(path: Path) -> Project:
    """The first bag in a file, with what it shares."""
    return load(path).project()


def save_bag(project: Project, path: Path) -> None:
    """A file with that one bag."""
    save(job_of(project), path)


def bag_from(text: str, *name: str) -> Project:
    """The first bag in a text."""
    return from_text(text, *name).project()


# Of what the bags of a job share, what there was not before there were jobs.
SINCE_FLAT = ("first_seams", "cut_from", "cut_for", "cutting", "pricing")


def flat_text(project: Project) -> str:
    """A bag as format 4 had it: all in one, before there were jobs."""
    job = json.loads(to_text(job_of(project)))
    for later in (*SINCE_FLAT, "mark"):
        job["shared"].pop(later)
    flat = {**job["shared"], **job["bags"][0], "format": 4}
    return json.dumps(flat, ensure_ascii=False, indent=2, sort_keys=True) + "\n"


def plies(*keys: str, **more) -> tuple[Ply, ...]:
    """Layers of these materials, each cut and held as given."""
    return tuple(Ply(material=key, **more) for key in keys)


def tote(**changes) -> Project:
    """A tote of round numbers: 11 × 12 × 3 finished, 2½ strips, lines 1¼ apart."""
    project = Project(
        name="Test tote",
        shape=ShapeChoice(
            kind="tote",
            way="finished",
            sizes={"width": Fraction(11), "height": Fraction(12), "depth": Fraction(3)},
        ),
        panels={
            "front": PanelChoices(piecing=Piecing(prints=("red", "blue"))),
            "lining": PanelChoices(
                piecing=Piecing(way="whole", prints=("oat",)),
                layers=Layers(plies=()),
                quilting=Quilting(pattern="none"),
            ),
        },
        prints=(
            Print(key="red", name="Red dots", motif="dots"),
            Print(key="blue", name="Blue checks", motif="checks"),
            Print(key="oat", name="Oat plain"),
        ),
        binding=Binding(print="oat"),
        hold=Held(),
    )
    return project.model_copy(update=changes)


@pytest.fixture
def project() -> Project:
    return tote()


def job_tote(**changes) -> Job:
    """A job of one tote."""
    return job_of(tote(**changes))
