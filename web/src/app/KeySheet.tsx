import { Sheet } from "@/ui/Sheet";

const KEYS: [string, string][] = [
  ["← →", "from place to place in a bank, in the direction in which the board numbers them"],
  ["↑ ↓", "move the slider up or down, as it is drawn"],
  ["0 1 ?", "set a place and go to the next; ? is unreadable"],
  ["Space", "move the slider to the other side"],
  ["D  B", "in the run sheet of fitting: done; back a step"],
  ["Tab", "to the next thing on the page"],
  ["?", "this sheet"],
];

/** What the keyboard does. */
export function KeySheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Sheet open={open} onClose={onClose} title="Keys">
      <dl className="grid grid-cols-[6rem_1fr] gap-y-3">
        {KEYS.map(([key, what]) => (
          <div key={key} className="contents">
            <dt className="font-mono text-lg">{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </Sheet>
  );
}
