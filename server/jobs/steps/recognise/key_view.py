"""The key of features for the screen, and the one-page summary for the depot."""

from uuid import UUID

from catalogue.board_pictures import photographs
from catalogue.models import Board
from catalogue.wording import standing_words
from jobs.models import Job
from references.queries import about
from twincore.recognise import Question, Sighting, questions, remaining, separating
from twinshown.steps.recognise.schemas import FeatureChoice, KeyShown, LookAlike, QuestionShown, SightingShown

MOST_SHOWN = 12


MOST_BOARDS = 600


TITLES = {
    "colour": "What colour is the board?", "plugs": "How many plugs does it have?",
    "plug styles": "How many pins do its plugs have?", "banks": "Which switches does it have?",
    "fuse": "Where is the fuse?", "lamp": "Where is the lamp?", "button": "Is there a button?",
    "relays": "How many relays?", "size": "How large is it?", "chip": "What is printed on the largest chip?",
    "display": "Is there a display?",
}  # fmt: skip


def key_shown(job: Job) -> KeyShown:
    """What is left after the answers, and what to look at next."""
    possible = Board.objects.seen_by(job.depot_id).filter(current__isnull=False)
    if job.family_revision is not None:
        possible = possible.filter(family_id=job.family_revision.family_id)
    rows = {
        each.part_number: each
        for each in possible.order_by("part_number").only(
            "part_number", "maker", "title", "status", "features", "traits"
        )[:MOST_BOARDS]
    }
    every = [Sighting(name, row.features) for name, row in rows.items()]
    answers = job.state.get("features", {})
    left = remaining(every, answers)
    asked = questions(left, answers)
    pictures = photographs([each.part_number for each in left[:MOST_SHOWN]], job.depot_id)
    return KeyShown(
        answers=answers,
        question=_question(asked[0]) if asked else None,
        left=[_sighting(rows[each.part_number], pictures.get(each.part_number)) for each in left[:MOST_SHOWN]],
        left_count=len(left),
        of=len(every),
        look_alikes=_look_alikes(left, every) if len(left) <= MOST_SHOWN else [],
        inseparable=[each.part_number for each in left] if len(left) > 1 and not asked else [],
    )


def _question(question: Question) -> QuestionShown:
    return QuestionShown(
        feature=question.feature,
        title=TITLES.get(question.feature, f"{question.feature.capitalize()}?"),
        choices=[FeatureChoice(value=value, boards=count) for value, count in question.choices],
        bits=question.bits,
    )


def _sighting(row: Board, picture: UUID | None) -> SightingShown:
    return SightingShown(
        part_number=row.part_number, maker=row.maker, title=row.title, status=row.status, standing=standing_words(row.traits),
        features=row.features,
        sketch=row.sketch, picture=picture,
    )  # fmt: skip


def _look_alikes(left: list[Sighting], every: list[Sighting]) -> list[LookAlike]:
    """Boards that look alike and are not exchangeable, and boards that look different and are the same or newer."""
    by_name = {each.part_number: each for each in every}
    names = {each.part_number for each in left}
    found = []
    statements = about(names)
    apart_by_word = {(s.original, s.replacement) for s in statements if s.relation == "not exchangeable"}
    for statement in statements:
        one, other = statement.original, statement.replacement
        if one not in names or other not in by_name:
            continue
        apart = separating(by_name[one], by_name[other])
        if statement.relation == "not exchangeable" and len(apart) <= 2:
            told = ", ".join(f"{name}: {a} there, {b} here" for name, a, b in apart)
            words = f"Not exchangeable, and alike at a glance. Told apart by {told}." if told else (
                "Not exchangeable, and nothing visible tells them apart. The printed number does."
            )  # fmt: skip
            found.append(LookAlike(one=one, other=other, kind="not exchangeable", words=words))
        elif statement.relation in ("same", "supersedes") and apart and not statement.conditions:
            if (one, other) in apart_by_word:
                continue  # what forbids beats what allows
            told = ", ".join(f"{name} {b} instead of {a}" for name, a, b in apart[:3])
            kind = "the same board" if statement.relation == "same" else "its successor"
            found.append(LookAlike(one=one, other=other, kind=kind, words=f"Looks different ({told}) and is {kind}."))
    return found[:MOST_SHOWN]
