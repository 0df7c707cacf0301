import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { useKeptState } from "@/ui/typed";
import { inTurn } from "../entries/inTurn";
import type { Change } from "../entries/targets";
import type { StepProps } from "../stepProps";

const MOST = 6;

/** Another board of the same machine that goes along: it has a sheet of its own, and the same lock-off and hand-over. */
export function AddBoard({ job, put }: StepProps) {
  const [title, setTitle] = useKeptState("another board title", "");
  const [why, setWhy] = useKeptState("another board why", "");
  const count = job.together?.sheets.length ?? 1;
  // with the supply back on, nobody opens the machine again for one more by the way
  if (job.closed || job.energised || count >= MOST) return null;
  const add = () => {
    const said = { title: title.trim(), ...(why.trim() ? { why: why.trim() } : {}) };
    const first: Change[] = job.board_names["1"] ? [] : [{ target: "board.1", after: { title: "Main board" } }];
    void inTurn(put, [...first, { target: `board.${count + 1}`, after: said }]).then((taken) => {
      if (!taken) return;
      setTitle("");
      setWhy("");
    });
  };
  return (
    <details className="border-t border-rule">
      <summary className="min-h-11 py-2.5 font-semibold">Another board of this machine goes too</summary>
      <div className="flex flex-col gap-3 pb-4">
        <p className="text-sm text-faint">
          It gets a sheet of its own: record, plan, reading back and proof. The lock-off and the hand-over are the same.
        </p>
        <TextField
          label="What it is called"
          hint="such as: drive board, display"
          maxLength={80}
          value={title}
          onChange={(event) => setTitle(event.target.value)}
        />
        <TextField
          label="The reason, where it is known"
          hint="such as: shorted, and took the main board with it. Left empty, it is ruled out by itself."
          maxLength={200}
          value={why}
          onChange={(event) => setWhy(event.target.value)}
        />
        <Button className="self-start" needs={lacking({ "what it is called": !title.trim() })} onClick={add}>
          Add this board
        </Button>
      </div>
    </details>
  );
}
