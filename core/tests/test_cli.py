import contextlib
import io
import json
import os
import subprocess
import sys
import tempfile
from pathlib import Path
from unittest.mock import patch

from django.test import SimpleTestCase

from tests.builders import CASES, DEMO
from twincore.cli import PARTS, main

FAMILY = str(DEMO / "families/deck-oven.family.json")
OVEN = CASES / "oven-lockout-forgotten"


def call(*words: object) -> tuple[int, str, str]:
    out, err = io.StringIO(), io.StringIO()
    with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
        code = main([str(word) for word in words])
    return code, out.getvalue(), err.getvalue()


class CommandLine(SimpleTestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def file(self, name: str, text: str) -> Path:
        path = self.folder / name
        path.write_text(text)
        return path

    def pair(self) -> list[object]:
        return ["--family", OVEN / "family.json", "--original", OVEN / "original.board.json",
                "--original-settings", OVEN / "original.settings.json", "--replacement", OVEN / "replacement.board.json",
                "--replacement-settings", OVEN / "replacement.settings.json"]  # fmt: skip

    def test_a_box_of_boards_is_checked_whole_with_every_place(self) -> None:
        board, family = (json.loads(Path(each).read_text()) for each in (DEMO / "boards/TVH-2210-B.board.json", FAMILY))
        box = {"format": "worthy-twin/boards", "version": 1, "from": "", "families": [family], "boards": [board]}
        self.assertEqual(call("check", self.file("box.json", json.dumps(box)))[0], 0)
        board["functions"]["purge.post"]["table"][0]["value"] = "a while"
        code, _, said = call("check", self.file("wrong.json", json.dumps(box)))
        self.assertEqual(code, 2)
        self.assertIn("boards[0].functions.purge.post.table[0].value", said)

    def test_check_answers_ok(self) -> None:
        code, out, _ = call("check", "--family", FAMILY, *sorted((DEMO / "boards").glob("TVH*")))
        self.assertEqual((code, json.loads(out)), (0, {"ok": True}))

    def test_a_wrong_file_is_named_with_place_and_expectation_and_nothing_is_printed(self) -> None:
        board = json.loads((DEMO / "boards/TVH-2205.board.json").read_text())
        board["behaviour"]["states"]["run"]["go"][2]["to"] = "nowhere"
        path = self.file("bad.json", json.dumps(board))
        code, out, err = call("check", path)
        self.assertEqual((code, out), (2, ""))
        self.assertIn(f"{path}: behaviour.states.run.go[2].to: expected a state", err)

    def test_a_missing_file_is_an_input_error(self) -> None:
        code, _, err = call("check", self.folder / "none.json")
        self.assertEqual(code, 2)
        self.assertIn("none.json: expected a file that can be read", err)

    def test_boards_of_one_layout_are_checked_against_each_other(self) -> None:
        board = json.loads((DEMO / "boards/TVH-2210-C.board.json").read_text())
        board["functions"]["tries"] = {"fixed": 3}
        code, _, err = call("check", DEMO / "boards/TVH-2210-B.board.json", self.file("c.json", json.dumps(board)))
        self.assertEqual(code, 2)
        self.assertIn("functions.tries: expected the meaning that TVH-2210-B gives it", err)

    def test_prove_prints_the_counter_case(self) -> None:
        code, out, _ = call("prove", *self.pair())
        answer = json.loads(out)
        self.assertEqual((code, answer["verdict"], answer["counter_case"]["changes"]), (0, "different", 3))
        self.assertEqual(answer["counter_case"]["steps"][0], {"at": 0, "set": {"call": True}})

    def test_a_certificate_is_written_checked_and_refused_where_it_is_damaged(self) -> None:
        alike = [str(each).replace("lockout-forgotten", "in-register") for each in self.pair()]
        code, out, _ = call("certify", *alike)
        self.assertEqual((code, json.loads(out)["format"]), (0, "worthy-twin/certificate"))
        whole = self.file("certificate.json", out)
        self.assertEqual(json.loads(call("certify", *alike, "--certificate", whole)[1]), {"shown": True, "places": 9})
        damaged = self.file("damaged.json", out.replace('"purge"', '"light"'))
        code, _, err = call("certify", *alike, "--certificate", damaged)
        self.assertEqual(code, 2)
        self.assertIn("damaged.json: with the original in purge", err)
        self.assertIn("leads out of the places", err)
        code, _, err = call("certify", *self.pair())
        self.assertEqual(code, 2)
        self.assertIn("expected two boards that are shown to be the same", err)

    def test_decode_carry_simulate(self) -> None:
        code, out, _ = call("decode", "--family", OVEN / "family.json", "--board", OVEN / "original.board.json",
                            "--settings", OVEN / "original.settings.json")  # fmt: skip
        self.assertEqual((code, json.loads(out)["functions"]["purge.post"]), (0, {"value": 90}))
        facts = self.file("facts.json", '{"model": "DK2"}')
        code, out, _ = call("carry", "--family", OVEN / "family.json", "--original", OVEN / "original.board.json",
                            "--found", OVEN / "original.settings.json", "--replacement", OVEN / "replacement.board.json",
                            "--facts", facts)  # fmt: skip
        answer = json.loads(out)
        self.assertEqual((answer["settings"], answer["misses"], answer["moved"]),
                         ({"SW1": "0111", "R1": "6"}, {"safety": 0, "other": 0}, 2))  # fmt: skip
        self.assertEqual(answer["charts"], [])
        code, out, _ = call("simulate", "--family", OVEN / "family.json", "--board", OVEN / "original.board.json",
                            "--settings", OVEN / "original.settings.json", "--scenario", OVEN / "scenario.json")  # fmt: skip
        self.assertEqual(json.loads(out)["outputs"][1], {"at": 19.5, "on": ["fan", "igniter", "valve"]})

    def test_simulating_what_is_open_says_what_to_read(self) -> None:
        record = self.file(
            "half.json",
            json.dumps(
                {
                    "format": "worthy-twin/settings",
                    "version": 1,
                    "part_number": "TVH-2210-B",
                    "positions": {"S1": "?10110"},
                }
            ),
        )
        code, _, err = call("simulate", "--family", OVEN / "family.json", "--board", OVEN / "original.board.json",
                            "--settings", record, "--scenario", OVEN / "scenario.json")  # fmt: skip
        self.assertEqual(code, 2)
        self.assertIn("expected positions that decide purge.pre", err)

    def test_measure_judges_a_reading(self) -> None:
        code, out, _ = call(
            "measure", "ntc-beta", "--r25", 10000, "--beta", 3950, "--at", 25, "--within-c", 1, "--reading", 9000
        )
        self.assertEqual((code, json.loads(out)["verdict"], json.loads(out)["side"]), (0, "outside", "below"))
        code, out, _ = call("measure", "bus", "--reading", 60, "--uncertainty", 1)
        self.assertEqual((json.loads(out)["verdict"], json.loads(out)["terminators"]), ("inside", 2))
        code, out, _ = call("measure", "stored-energy", "--capacitance-uf", 470, "--volts", 325.27, "--bleed-kohm", 100)
        self.assertAlmostEqual(json.loads(out)["wait_s"], 79.4, places=1)
        code, out, _ = call("measure", "insulation", "--reading", 5)
        self.assertEqual(json.loads(out)["band"], {"low": 1.0, "high": None})
        for words, told in ((("drop", "--gauge", 18), "--current-a"), (("supply", "--nominal", 17, "--reading", 1), "supply"),
                            (("contact", "--designation", "B", "--volts", 24), "designation")):  # fmt: skip
            code, out, err = call("measure", *words)
            self.assertEqual((code, out), (2, ""))
            self.assertIn(told, err)

    def test_recognise_reads_markings_and_plates_from_a_folder(self) -> None:
        code, out, _ = call("recognise", "--catalogue", DEMO, "--marking", "tvh 22IO 8", "--plate", "DK2 6 30 1 07 B")
        answer = json.loads(out)
        self.assertEqual(
            (code, answer["hits"][0]["part_number"], answer["hits"][0]["readings"][0]["how"]),
            (0, "TVH-2210-B", "misread"),
        )
        wrong = [place for place in answer["plates"][0]["places"] if not place["ok"]]
        self.assertEqual([(place["id"], place["text"], place["perhaps"]) for place in wrong], [("fuel", "6", "G")])
        self.assertEqual(call("recognise", "--catalogue", DEMO)[0], 2)
        self.assertIn("expected a folder", call("recognise", "--catalogue", self.folder / "none", "--marking", "x")[2])

    def test_match_ranks_the_boards_of_a_folder_by_facts(self) -> None:
        facts = self.file("facts.json", json.dumps({"burner.stages": 1, "damper.fitted": False, "supply.volts": 231}))
        code, out, _ = call("choose", "--catalogue", DEMO, "--original", "TVH-2210-B", "--facts", facts)
        answer = json.loads(out)
        self.assertEqual(
            (code, answer["candidates"][0]["part_number"], answer["candidates"][0]["verdict"]),
            (0, "TVH-2210-C", "fits"),
        )
        last = answer["candidates"][-1]
        self.assertEqual((last["part_number"], last["criteria"]["listing"]["verdict"]), ("TVH-2210-X", "no"))
        self.assertEqual({each["relation"] for each in answer["other_ways"]}, {"exchange", "repair", "donor"})
        self.assertIn("expected a board X", call("choose", "--catalogue", DEMO, "--original", "X")[2])

    def test_a_folder_that_changes_while_it_is_read_is_told(self) -> None:
        """Defect: a traceback, where a folder below was taken away between looking and reading."""
        gone = self.folder / "below" / "gone.json"
        gone.parent.mkdir()
        gone.symlink_to(self.folder / "nowhere")  # listed, and not there any more when it is read
        code, _, told = call("choose", "--catalogue", self.folder, "--original", "X")
        self.assertEqual(code, 2)
        self.assertIn("gone.json: expected a file that can be read", told)
        with patch("pathlib.Path.rglob", side_effect=FileNotFoundError(2, "No such file or directory", "below")):
            code, _, told = call("choose", "--catalogue", self.folder, "--original", "X")
        self.assertEqual(code, 2)
        self.assertIn("stays as it is while it is read", told)


class Help(SimpleTestCase):
    def test_every_call_says_what_it_answers_and_what_it_takes(self) -> None:
        for names in PARTS.values():
            for name, told in names.items():
                out = io.StringIO()
                with self.subTest(name), contextlib.redirect_stdout(out), self.assertRaises(SystemExit) as ended:
                    main([name, "--help"])
                self.assertEqual(ended.exception.code, 0)
                self.assertIn(told, " ".join(out.getvalue().split()))
                self.assertIn("--help", out.getvalue())

    def test_help_loads_nothing_that_only_an_answer_needs(self) -> None:
        told = "import sys; from twincore.cli import PARTS, main\ntry: main(['--help'])\nexcept SystemExit: pass\n"
        told += "print('loaded', *sorted({name.partition('.')[0] for name in sys.modules}))"
        run = subprocess.run([sys.executable, "-c", told], capture_output=True, text=True, check=True, env=os.environ)
        loaded = run.stdout.rpartition("loaded")[2].split()
        self.assertFalse(
            {"numpy", "scipy", "networkx", "pydantic", "jsonschema_rs", "ortools", "rapidfuzz"} & set(loaded)
        )
        for name in ("decode", "carry", "job", "wire", "choose"):
            self.assertIn(name, run.stdout)
