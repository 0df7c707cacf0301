import { Sheet } from "@/ui/Sheet";
import { WORDS } from "@/ui/words";

const KEYS: [string, string][] = [
  ["N", "do the next thing of the job, or go to it"],
  ["← →", "from place to place in a bank, as the eye meets them"],
  ["↑ ↓", "point the slider up or down, as it is drawn; on an upright bank ← and →"],
  ["0 1 ?", "set a place and go to the next; ? is unreadable"],
  ["Space", "move the slider to the other side"],
  ["D  B", "in the run sheet of fitting: done; back a step"],
  ["Tab", "to the next thing on the page"],
  ["?", "this sheet"],
];

/** What the keyboard does, and what the product's words mean. */
export function KeySheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Sheet open={open} onClose={onClose} title="Words and keys">
      <h3 className="mb-2">Keys</h3>
      <dl className="grid grid-cols-[6rem_1fr] gap-y-2">
        {KEYS.map(([key, what]) => (
          <div key={key} className="contents">
            <dt className="font-mono text-lg">{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <h3 className="mt-5 mb-2">Words</h3>
      <dl className="flex flex-col gap-2">
        {WORDS.map(({ word, meaning }) => (
          <div key={word}>
            <dt className="font-semibold">{word}</dt>
            <dd>{meaning}</dd>
          </div>
        ))}
      </dl>
    </Sheet>
  );
}
