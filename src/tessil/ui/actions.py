"""The table of actions: id, words, shortcuts, and the window's method that does it."""

from __future__ import annotations

from tessil.core.numbers.records import Record


class ActionRow(Record, frozen=True):
    """One action; ``does`` names a method of the window."""

    key: str
    words: str
    keys: tuple[str, ...]
    does: str
    menu: bool = True
    apart: bool = False  # a rule above it in the menu


ACTIONS = (
    ActionRow("new", "New bag", ("Ctrl+N",), "new_bag"),
    ActionRow("open", "Open…", ("Ctrl+O",), "ask_open"),
    ActionRow("save", "Save", ("Ctrl+S",), "save"),
    ActionRow("save-as", "Save as…", ("Ctrl+Shift+S",), "ask_save_as"),
    ActionRow("kept", "Kept work…", (), "show_kept"),
    ActionRow("worksheet", "Worksheet", ("Ctrl+P",), "show_worksheet", apart=True),
    ActionRow("cutting-sheet", "Cutting sheet", ("Ctrl+Shift+P",), "show_cutting_sheet"),
    ActionRow("keep-cloths", "Keep the plan's cloths for this job", (), "keep_cloths"),
    ActionRow("lay-on-shelf", "Lay scraps, offcuts and pack on the shelf", (), "lay_on_shelf"),
    ActionRow(
        "take-from-shelf", "Take scraps of this bag's prints off the shelf", (), "take_from_shelf"
    ),
    ActionRow("sewing-sheet", "Sewing sheet", ("Ctrl+Alt+P",), "show_sewing_sheet"),
    ActionRow("templates", "Templates at full size", ("Ctrl+Alt+T",), "show_templates"),
    ActionRow("templates-large", "Templates, each on one page", (), "show_large_templates"),
    ActionRow("svg", "Save the drawing as SVG…", ("Ctrl+E",), "ask_svg"),
    ActionRow("bag-svg", "Save the bag as it stands as SVG…", (), "ask_bag_svg"),
    ActionRow("bag-png", "Save the bag as it stands as PNG…", (), "ask_bag_png"),
    ActionRow("hoopings", "Save the hoopings as SVG…", (), "ask_hoopings"),
    ActionRow("csv", "Save the cut list as CSV…", ("Ctrl+Shift+E",), "ask_csv"),
    ActionRow("dxf", "Save the cutting as DXF…", (), "ask_cutting_dxf"),
    ActionRow("shopping", "Save the shopping list as CSV…", (), "ask_shopping"),
    ActionRow("strips", "Save the edges' strips as CSV…", (), "ask_strips_out"),
    ActionRow("scraps-out", "Save the scraps as CSV…", (), "ask_scraps_out"),
    ActionRow("scraps-in", "Take scraps from a CSV…", (), "ask_scraps_in"),
    ActionRow("log", "Logbook of swatches", ("Ctrl+L",), "show_log"),
    ActionRow("times", "Your times", ("Ctrl+T",), "show_times"),
    ActionRow("made", "Bags you made", ("Ctrl+B",), "show_made"),
    ActionRow("price-tag", "Price tag", (), "show_tag"),
    ActionRow("shelf", "The shelf", ("Ctrl+H",), "show_shelf"),
    ActionRow("materials", "Materials", ("Ctrl+M",), "show_materials"),
    ActionRow("undo", "Undo", ("Ctrl+Z",), "undo", apart=True),
    ActionRow("redo", "Redo", ("Ctrl+Shift+Z", "Ctrl+Y"), "redo"),
    ActionRow("units", "Change between inches and centimetres", ("Ctrl+U",), "change_units"),
    ActionRow("copy", "Copy", ("Ctrl+C",), "copy"),
    ActionRow("copy-figures", "Copy the figures on show", (), "copy_figures"),
    ActionRow("copy-shopping", "Copy the shopping list", (), "copy_shopping"),
    ActionRow("copy-cuts", "Copy the cut list", (), "copy_cut_list"),
    ActionRow(
        "text-more", "Larger text", ("Ctrl+Shift++", "Ctrl+Shift+="), "text_more", apart=True
    ),
    ActionRow("text-less", "Smaller text", ("Ctrl+Shift+-",), "text_less"),
    ActionRow("row-more", "One row more", ("Ctrl+]",), "row_more", apart=True),
    ActionRow("row-fewer", "One row fewer", ("Ctrl+[",), "row_fewer"),
    ActionRow("settle", "Settle this stage", ("Ctrl+Return",), "settle"),
    ActionRow("fix", "Go to the first snag", ("F8",), "first_snag"),
    ActionRow("bench", "Go to the bench", ("F6",), "go_to_bench"),
    ActionRow("figures", "Go to the choices and figures", ("F7",), "go_to_column"),
    ActionRow("next-panel", "Next panel", ("Ctrl+Tab", "Ctrl+PgDown"), "next_panel", menu=False),
    ActionRow(
        "last-panel", "Panel before", ("Ctrl+Shift+Tab", "Ctrl+PgUp"), "last_panel", menu=False
    ),
    ActionRow("add-bag", "Add a bag to this job", ("Ctrl+Shift+N",), "add_bag", apart=True),
    ActionRow("bring-bags", "Add the bags of a file…", (), "ask_bring"),
    ActionRow("copy-bag", "Copy this bag", ("Ctrl+D",), "copy_bag"),
    ActionRow("remove-bag", "Remove this bag from the job", (), "remove_bag"),
    ActionRow("next-bag", "Next bag of the job", ("Alt+PgDown",), "next_bag", menu=False),
    ActionRow("last-bag", "Bag before", ("Alt+PgUp",), "last_bag", menu=False),
    ActionRow("menu", "Menu", ("F10",), "open_menu", menu=False),
    ActionRow("demo", "Demo: the band's kit of four", (), "open_demo", apart=True),
    ActionRow("demo-satchel", "Demo: rehearsal satchel", (), "open_satchel"),
    ActionRow("demo-pouch", "Demo: reed pouch", (), "open_reed_pouch"),
    ActionRow("demo-clutch", "Demo: march-card clutch", (), "open_clutch"),
    ActionRow("demo-sack", "Demo: mute sack", (), "open_sack"),
    ActionRow("help", "Keys", ("F1",), "show_keys", apart=True),
    ActionRow("about", "About Tessil", (), "show_about"),
    ActionRow("quit", "Quit", ("Ctrl+Q",), "quit", apart=True),
)
