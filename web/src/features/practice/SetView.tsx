import { EndTask } from "./EndTask";
import { Drawn } from "./Drawn";
import { Editors } from "./Editors";
import { Runs } from "./Runs";
import type { Action, Setting, Task } from "./task";

type Props = { shown: Setting; task: Task; onAct: (action: Action) => void; busy: boolean };

/** The new board is set, and the machine is run: what it does is seen, what it should do is in the learner's head. */
export function SetView({ shown, task, onAct, busy }: Props) {
  const { original, replacement } = task;
  return (
    <>
      {shown.wanted && (
        <dl className="grid grid-cols-[1fr_auto] border-t border-rule">
          {shown.wanted.map((each) => (
            <div key={each.title} className="contents">
              <dt className="border-b border-rule py-1.5">{each.title}</dt>
              <dd className="border-b border-rule py-1.5 text-right font-mono text-lg">{each.value}</dd>
            </div>
          ))}
        </dl>
      )}
      {shown.original && <Drawn board={original} positions={shown.original} side="original" />}
      <h2>The new board</h2>
      <Editors
        elements={replacement.elements}
        values={shown.positions}
        side="replacement"
        called="of the new board"
        disabled={busy}
        onChange={(positions) => onAct({ do: "set", positions })}
      />
      <h2>Run the machine</h2>
      <Runs shown={shown} task={task} onAct={onAct} busy={busy} />
      <EndTask onAct={onAct} busy={busy}>
        It is done
      </EndTask>
    </>
  );
}
