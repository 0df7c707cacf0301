"""A job on a kit with a sensor and a bracket, prepared up to its fitting."""

from jobs.tests.world import Calls

DAYS = "Monday 04:30\nTuesday 04:30\nSunday off"


def kit_to_fit(said: Calls) -> None:
    """The open job recorded and planned: what comes next is fitting the kit."""
    said.add("original", "UMC 42-050")
    said.add("replacement", "UMC 48-200", reason="the maker's kit")
    said.add("confirmed.rule_out", {"note": "burnt track", "end": "undecided"})
    said.add("serial", "482 913", reason="so it stands on the plate")
    said.add("fact.model", {"value": "0712-44A", "source": "plate"})
    said.add("kept.days", DAYS)
    said.add("kept.model", "0712-44A")
    said.make_dead(said.open)
    for element in said.of("boards/original")["document"]["settings"]:
        said.add(f"found.{element['id']}", element["factory"], read_how="by eye")
    said.record_plugs(said.open)
    said.add("confirmed.record", {"note": ""})
    for each in said.of("comparison")["rows"]:
        if each["missed"] or each["verdict"] == "open":
            said.add(f"reason.{each['id']}", "the kit is so")
    said.add("confirmed.carry_over", {"note": ""})
