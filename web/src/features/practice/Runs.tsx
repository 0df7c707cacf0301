import { inputOf } from "@/comparison/inputs";
import { TimeTracks } from "@/drawing/TimeTracks";
import { Button } from "@/ui/Button";
import type { Action, Ran, Setting, Task } from "./task";

type Props = { shown: Setting; task: Task; onAct: (action: Action) => void; busy: boolean };

/** What the machine can be made to do, and what it did last. */
export function Runs({ shown, task, onAct, busy }: Props) {
  return (
    <>
      <div className="flex flex-wrap gap-2">
        {shown.runs.map((each, index) => (
          <Button
            key={each.id}
            aria-pressed={shown.ran?.id === each.id}
            disabled={busy}
            onClick={() => onAct({ do: "run", run: each.id })}
          >
            {each.title || `Something else, ${index + 1}`}
            {each.looked_at && " ✓"}
          </Button>
        ))}
      </div>
      {shown.ran && <Machine ran={shown.ran} task={task} />}
    </>
  );
}

const FAULTS: Record<string, string> = {
  "stands still": "Nothing. The board shows no lamp: some position of it means nothing.",
  "never settles": "Its relays chatter without end.",
  dead: "Nothing. No lamp is on: it has no supply.",
  burnt: "A bang, and a smell of burnt board: mains was where this board has none. Nothing moves.",
};

/** What the machine does in a run. */
function Machine({ ran, task }: { ran: Ran; task: Task }) {
  if (ran.fault) return <p role="status">{FAULTS[ran.fault]}</p>;
  const outputs = (task.outputs as { id: string; title?: string }[]).map((each) => ({
    id: each.id,
    title: each.title ?? each.id,
  }));
  return (
    <TimeTracks
      inputs={(task.inputs as { id: string; title?: string }[]).map(inputOf(task.rest))}
      outputs={outputs}
      steps={ran.steps}
      original={[]}
      replacement={ran.outputs.map((each) => ({ ...each, states: [] }))}
      compared={[]}
      until={ran.until}
    />
  );
}
