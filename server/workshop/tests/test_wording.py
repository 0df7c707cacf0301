from django.test import SimpleTestCase

from workshop.wording import place_words, where_words

BOARD = {"charts": [{"id": "leaflet-1", "title": "Sheet 4"}, {"id": "leaflet-2"}], "connectors": [{"id": "C1"}]}
TITLES = {"purge.post": "Post-purge"}


class Places(SimpleTestCase):
    def test_where_a_finding_stands_is_told_as_the_tables_have_it(self) -> None:
        for place, words in (
            ("charts[0].rows[1].set.S1", "Sheet 4, row 2, S1"), ("charts[1].rows[0].if.damper.fitted", "leaflet-2, row 1, damper.fitted"),
            ("charts[0].rows[3]", "Sheet 4, row 4"), ("charts[0].rows[3].set", "Sheet 4, row 4"),
            ("functions.purge.post.table[2].value", "Post-purge, row 3"), ("functions.purge.post", "Post-purge"),
            ("functions.other.from", "other"), ("connectors[0].pins[2].signal", "plug C1, pin 3 of its list"),
            ("behaviour.states.light.go[0].if", "state light, arrow 1"), ("behaviour.states.light", "state light"),
            ("behaviour.machines[1].states.run.on[0]", "state run"), ("behaviour.start", "the behaviour"), ("title", "title"),
        ):  # fmt: skip
            with self.subTest(place):
                self.assertEqual(where_words(place, BOARD, TITLES), words)

    def test_what_was_edited_is_told_in_words(self) -> None:
        for path, words in (
            (["board", "functions", "purge.post"], "the meaning of purge.post"), (["board", "charts", 1], "chart 2"),
            (["board", "charts"], "charts"), (["board", "behaviour", "states", "light"], "state light of the behaviour"),
            (["board", "standing", "functions"], "where the meaning is from"), (["family", "functions", 2], "a function of the kind"),
            (["board", "size_mm"], "size mm"),
        ):  # fmt: skip
            with self.subTest(path):
                self.assertEqual(place_words(path), words)
