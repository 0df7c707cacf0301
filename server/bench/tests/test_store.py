"""Many answers are kept in one statement, and let go of when there are too many."""

from unittest.mock import patch

from django.core.cache import cache, caches
from django.db import connection
from django.test import TestCase

from bench import kept


class Answers(TestCase):
    """What is kept is found again, by this process and by others."""

    def setUp(self) -> None:
        cache.clear()

    def test_many_are_written_and_read_with_one_question_each(self) -> None:
        answers = {f"answer-{number}": {"number": number} for number in range(40)}
        with self.assertNumQueries(2):  # how many there are, and the answers
            kept.keep_all(answers)
        with self.assertNumQueries(0):
            self.assertEqual(kept.known(answers), answers)
        cache.clear()  # as another process has it
        with self.assertNumQueries(1):
            self.assertEqual(kept.known([*answers, "nobody-kept-this"]), answers)

    def test_the_later_of_two_takes_the_place(self) -> None:
        kept.keep_all({"a": 1, "b": 2})
        kept.keep_all({"a": 3})
        cache.clear()
        self.assertEqual(kept.known(["a", "b"]), {"a": 3, "b": 2})
        self.assertEqual(kept.kept("a", lambda: self.fail("it is kept")), 3)

    def test_none_is_nothing(self) -> None:
        with self.assertNumQueries(0):
            kept.keep_all({})

    def test_too_many_are_let_go_of(self) -> None:
        store = caches["answers"]
        store.clear()  # a database that is kept from run to run has others' answers in it
        kept.keep_all({f"old-{number}": number for number in range(30)})
        with connection.cursor() as cursor:
            cursor.execute("analyze kept_answer")
        with patch.object(store, "_max_entries", 10):
            kept.keep_all({"new": 1})
        cache.clear()
        left = kept.known([*(f"old-{number}" for number in range(30)), "new"])
        self.assertLess(len(left), 30)
        self.assertEqual(left["new"], 1)
