import { Caution } from "@/ui/notices";
import type { StepProps } from "../JobPage";
import { NoteAndConfirm } from "./NoteAndConfirm";

const TEXTS: Record<string, { caution: string; words: string; note: string; confirm: string }> = {
  make_safe: {
    caution: "Hold point: nothing below opens before this is confirmed",
    words:
      "Isolate and lock off. Prove dead with an instrument checked before and after. Wait for stored energy until a reading shows that it has gone. Shut gas and water where they matter, let hot parts cool. Local codes, the maker’s instructions and licensed practice come first; this page only keeps what was confirmed, by whom and when.",
    note: "Where it is locked off, lock number, reading when proved dead",
    confirm: "Isolated, locked off and proved dead",
  },
  fit: {
    caution: "Supply last, and only after the last look",
    words:
      "Set the new board as planned before it is mounted, and read it back. Move wires one at a time; no lead pinched, every routing kept; supply last. Local codes, the maker’s instructions and licensed practice come first.",
    note: "Anything that was done otherwise than planned?",
    confirm: "Fitted and set as planned",
  },
};

/** A step that takes a note and a confirmation, with the usual caution. */
export function ConfirmStep({ job, put, step }: StepProps & { step: string }) {
  const texts = TEXTS[step];
  if (!texts) return null;
  return (
    <div className="flex flex-col gap-4">
      <Caution title={texts.caution}>{texts.words}</Caution>
      <NoteAndConfirm job={job} put={put} step={step} label={texts.note} confirm={texts.confirm} />
    </div>
  );
}
