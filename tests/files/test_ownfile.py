"""A file of Tessil's own that cannot be read goes out of the way, and over nothing."""

from tessil.files.ownfile import put_aside


def test_it_is_put_aside_under_the_first_free_name(tmp_path):
    path = tmp_path / "logbook.json"
    for number in (1, 2):
        path.write_text(f"broken {number}")
        said = put_aside(path, "what you sew")
        aside = f"logbook.unreadable-{number}.json"
        assert said == f"It was put aside as “{aside}”; a new one is begun."
        assert (tmp_path / aside).read_text() == f"broken {number}"
        assert not path.exists()


def test_what_cannot_be_moved_says_what_is_not_kept(tmp_path):
    said = put_aside(tmp_path / "never-there.json", "what you sew")
    assert said == "It could not be put aside; what you sew is not kept."
