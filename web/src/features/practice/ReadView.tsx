import { Button } from "@/ui/Button";
import { Drawn } from "./Drawn";
import { Editors } from "./Editors";
import type { Action, Reading, Task } from "./task";

type Props = {
  shown: Reading;
  task: Task;
  /** The board whose places are filled in, where it was taken for another. */
  taken?: Task["original"];
  onAct: (action: Action) => void;
};

/** The old board as it hangs; what one reads is put in beside it. */
export function ReadView({ shown, task, taken, onAct }: Props) {
  const board = task.original;
  return (
    <>
      <Drawn board={board} positions={shown.positions} side="original" />
      <h2>How it stands</h2>
      <Editors
        elements={(taken ?? board).elements}
        values={shown.said}
        side="original"
        called="as you read it"
        onChange={(positions) => onAct({ do: "read", positions })}
      />
      <Button kind="main" className="self-start" onClick={() => onAct({ do: "done" })}>
        That is how it stands
      </Button>
    </>
  );
}
