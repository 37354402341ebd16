"""What every computed thing is a record of: fields that do not change.

Records are made by the tens of thousands for each plan; these are made some eight times faster than
standard frozen ones and cost no time where their modules are imported.
"""

from __future__ import annotations

from msgspec import Struct


class Record(Struct, frozen=True):
    """A frozen record: equal if its fields are, changed by ``msgspec.structs.replace``."""
