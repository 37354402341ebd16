"""The text of a document is that of the standard library, to the letter."""

import json

from hypothesis import given
from hypothesis import strategies as st

from tessil.files.jsontext import written

letters = st.text(st.characters(exclude_categories=["Cs"]))
numbers = st.integers(-(2**53), 2**53) | st.floats(-1e6, 1e6).map(lambda x: round(x, 6) + 0.0)
plain = st.recursive(
    st.none() | st.booleans() | numbers | letters,
    lambda inner: st.lists(inner, max_size=4) | st.dictionaries(letters, inner, max_size=4),
    max_leaves=20,
)


@given(st.dictionaries(letters, plain, max_size=5))
def test_it_is_what_the_standard_library_writes(data):
    text = written(data)
    assert json.loads(text) == data
    again = json.dumps(data, ensure_ascii=False, indent=2, sort_keys=True) + "\n"
    # Small numbers are told with another exponent, and some letters are escaped or not.
    if not any(mark in text for mark in ("e-", "\\u", "\x7f")):
        assert text == again
