import { Button } from "@/ui/Button";
import { Segments } from "@/ui/Segments";
import { useState } from "react";
import { Drawn } from "./Drawn";
import { Editors } from "./Editors";
import { Photographed } from "./Photographed";
import type { Action, Reading, Task } from "./task";

const LOOKS = {
  drawing: { words: "Drawn", shown: Drawn },
  picture: { words: "As a picture shows it", shown: Photographed },
} as const;

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
  const [by, setBy] = useState<keyof typeof LOOKS>("drawing");
  const Board = LOOKS[by].shown;
  return (
    <>
      <Segments
        label="How it is shown"
        choices={[
          ["drawing", LOOKS.drawing.words],
          ["picture", LOOKS.picture.words],
        ]}
        value={by}
        onChange={setBy}
      />
      <Board board={board} positions={shown.positions} side="original" />
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
