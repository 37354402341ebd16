"""Reports of a whole job: those of its bags, one after the other, each under its name.

Of a job of one bag they are that bag's report alone.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from typing import Any

from msgspec.structs import replace

from tessil.core.planned import Plan
from tessil.core.project import Job
from tessil.files.costreport import Ledger, cost_data, cost_text, reckoned
from tessil.files.csvtext import write_list
from tessil.files.cuttingreport import cutting_data, cutting_of, cutting_text
from tessil.files.makingreport import making_data, making_text
from tessil.files.report import CUT_COLUMNS, cut_csv, cut_rows, report_data, report_text
from tessil.files.striplist import HEAD, strip_rows, strips_csv

RULE = "\n" + "─" * 60 + "\n\n"


def job_text(
    job: Job,
    plans: Sequence[Plan],
    told: Callable[[Plan], str] = report_text,
    ledger: Ledger | None = None,
) -> str:
    """The bags' pages of text, under the job's name; time and money by a ledger."""
    found = cutting_of(job, plans) if told is report_text else None
    last = [] if found is None else [cutting_text(found, plans)]
    if ledger is not None:
        last.append(cost_text(reckoned(plans, replace(ledger, spreads=found))))
    tell = _bag_text if told is report_text else told
    if len(plans) == 1:
        return RULE.join([tell(plans[0]), *last])
    pages = [tell(made) for made in plans]
    if told is not report_text:  # pages that do not begin with the bag's own name
        pages = [f"{made.project.name}\n{page}" for made, page in zip(plans, pages, strict=True)]
    return f"{job.title}: {len(plans)} bags\n\n" + RULE.join([*pages, *last])


def _bag_text(plan: Plan) -> str:
    return f"{report_text(plan)}\n{making_text(plan)}"


def job_data(job: Job, plans: Sequence[Plan], ledger: Ledger | None = None) -> dict[str, Any]:
    """The bags' reports as data, in a list where there are several; time and money by a ledger."""
    found = cutting_of(job, plans)
    cut = {} if found is None else {"cutting": cutting_data(found, plans)}
    if ledger is not None:
        cut["reckoning"] = cost_data(reckoned(plans, replace(ledger, spreads=found)))
    if len(plans) == 1:
        return {**_bag_data(plans[0]), **cut}
    return {"job": job.title, "bags": [_bag_data(made) for made in plans], **cut}


def _bag_data(plan: Plan) -> dict[str, Any]:
    return {**report_data(plan), "making": making_data(plan)}


def job_cut_csv(plans: Sequence[Plan]) -> str:
    """One cut list of all bags, with a column for the bag where there are several."""
    return _listed(plans, CUT_COLUMNS, cut_rows, cut_csv)


def job_strips_csv(plans: Sequence[Plan]) -> str:
    """One list of the edges' strips of all bags, likewise."""
    return _listed(plans, HEAD, strip_rows, strips_csv)


def _listed(
    plans: Sequence[Plan],
    columns: Sequence[str],
    rows_of: Callable[[Plan], Iterable[Mapping[str, object]]],
    alone: Callable[[Plan], str],
) -> str:
    if len(plans) == 1:
        return alone(plans[0])
    rows = [
        [made.project.name, *(row[name] for name in columns)]
        for made in plans
        for row in rows_of(made)
    ]
    return write_list(("bag", *columns), rows)
