import { NINE_STEPS } from "@/ui/stepNames";
import type { Whole } from "./task";

export type WholeStep = keyof typeof NINE_STEPS;
export const WHOLE_STEPS = Object.keys(NINE_STEPS) as WholeStep[];

/** The steps with what was come to in each, and what one waits for. */
export function stepsOf(shown: Whole): { id: WholeStep; title: string; result: string; waits: string }[] {
  const read = shown.reading ? Object.keys(shown.reading.said).length : 0;
  const open = shown.carried?.filter((each) => each.verdict === "open").length ?? 0;
  const on = shown.wiring?.wires.filter((each) => each.at).length ?? 0;
  const ran = shown.setting?.runs.filter((each) => each.looked_at).length ?? 0;
  const named = shown.finding.suspects.find((each) => each.id === shown.finding.named)?.title ?? "";
  const results: Record<WholeStep, string> = {
    recognise: shown.recognised,
    rule_out: named,
    make_safe: shown.held ? "board in hand" : "",
    record: read ? `${read} read` : "",
    choose: shown.chosen,
    carry_over: shown.carried ? (open ? `${open} open` : "all is carried over") : "",
    fit: on ? `${on} of ${shown.wiring?.wires.length} wires on` : "",
    prove: ran ? `${ran} of ${shown.setting?.runs.length} runs` : "",
    hand_over: shown.says,
  };
  const known = shown.recognised ? "" : "Say first which board it is.";
  const ready = shown.carried ? "" : shown.chosen ? "Read the old board first." : "Choose a board first.";
  const waits: Partial<Record<WholeStep, string>> = {
    choose: known,
    record: known || (shown.held ? "" : "Make the machine safe first."),
    carry_over: ready,
    fit: ready,
    prove: ready,
    hand_over: ready,
  };
  return WHOLE_STEPS.map((id) => ({ id, title: NINE_STEPS[id], result: results[id], waits: waits[id] ?? "" }));
}
