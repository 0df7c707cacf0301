"""Facts to find out on the machine, as questions."""

from twincore.choose import Question
from twincore.profile.document import jsonable
from twinshown.words.fit import FitWords
from twinshown.words.schemas import QuestionAsked


def question_asked(question: Question, words: FitWords) -> QuestionAsked:
    """A fact with what it would have to be, in words and as data."""
    return QuestionAsked(
        fact=question.fact, words=words.question(question), wanted=jsonable(question.wanted), unit=question.unit
    )
