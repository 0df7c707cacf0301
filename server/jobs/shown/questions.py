"""Facts to find out on the machine, as questions."""

from jobs.shown.schemas import QuestionAsked
from jobs.shown.words import FitWords
from twincore.choose import Question
from twincore.profile.document import jsonable


def question_asked(question: Question, words: FitWords) -> QuestionAsked:
    """A fact with what it would have to be, in words and as data."""
    return QuestionAsked(
        fact=question.fact, words=words.question(question), wanted=jsonable(question.wanted), unit=question.unit
    )
