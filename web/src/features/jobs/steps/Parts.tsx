import { Part } from "@/ui/Part";
import { useState, type ReactNode } from "react";

export type PartOfStep = {
  id: string;
  title: string;
  status: string;
  /** Whether nothing is left to do in it. */
  done: boolean;
  /** Whether it opens by itself when it comes next; other parts wait to be opened. */
  asks?: boolean;
  /** Whether it is open even where nothing is left to do in it. */
  open?: boolean;
  body: ReactNode;
};

/** Where a part stands on the page. */
export const placeOf = (id: string) => `part-${id}`;

/** The part that comes next: the first that asks for something. */
export function nextOf(parts: PartOfStep[]) {
  return parts.find((part) => part.asks !== false && !part.done);
}

type Props = {
  parts: PartOfStep[];
  /** Whether a part in which somebody worked stays open when nothing is left to do in it. */
  keep?: boolean;
  /** Given when nothing opens by itself any more. */
  still?: boolean;
};

/** The parts of a step in their order: the next one open, done ones a line each. */
export function Parts({ parts, keep = false, still = false }: Props) {
  const [flipped, setFlipped] = useState<Record<string, boolean>>({});
  const [worked, setWorked] = useState<string[]>([]);
  const next = still ? undefined : nextOf(parts)?.id;
  // what was open while somebody worked in it does not close under the hand
  if (keep && next && !worked.includes(next)) setWorked([...worked, next]);
  return (
    <div>
      {parts.map((part) => {
        const open = flipped[part.id] ?? (part.open === true || part.id === next || worked.includes(part.id));
        return (
          <div key={part.id} id={placeOf(part.id)} tabIndex={-1} className="scroll-mt-28">
            <Part
              title={part.title}
              status={part.status}
              done={part.done}
              next={part.id === next}
              open={open}
              onFlip={() => setFlipped((old) => ({ ...old, [part.id]: !open }))}
            >
              {part.body}
            </Part>
          </div>
        );
      })}
    </div>
  );
}
