import { EndTask } from "./EndTask";
import { lacking } from "@/ui/lacking";
import { Button } from "@/ui/Button";
import { Choice } from "@/ui/fields";
import { Caution } from "@/ui/notices";
import { Drawn } from "./Drawn";
import { Editors } from "./Editors";
import { FindView } from "./FindView";
import { Panels } from "./KeysView";
import { ReadView } from "./ReadView";
import { Runs } from "./Runs";
import { SafeView } from "./SafeView";
import type { WholeStep } from "./steps";
import type { Action, Task, Whole } from "./task";
import { Wires } from "./WiresView";

type Props = { shown: Whole; task: Task; onAct: (action: Action) => void; busy: boolean };

/** One step of a whole job. */
export function StepRoom({ step, ...props }: Props & { step: WholeStep }) {
  const { shown, task, onAct, busy } = props;
  const boards = [task.original, task.replacement, ...task.others];
  const chosen = boards.find((each) => each.part_number === shown.chosen);
  const onBench = { ...task, replacement: chosen ?? task.replacement };
  switch (step) {
    case "recognise":
      return <Recognise {...props} />;
    case "rule_out":
      return <FindView shown={shown.finding} onAct={onAct} busy={busy} />;
    case "make_safe":
      if (shown.held) return <p>The machine is off, and the board is in your hand.</p>;
      return <SafeView shown={shown.safety} onAct={onAct} busy={busy} />;
    case "record":
      return (
        <>
          <Card {...props} />
          {shown.reading && (
            <ReadView
              shown={shown.reading}
              task={task}
              taken={boards.find((each) => each.part_number === shown.recognised)}
              onAct={onAct}
            />
          )}
        </>
      );
    case "choose":
      return <Choose {...props} />;
    case "carry_over":
      return <CarryOver {...props} board={onBench.replacement} />;
    case "fit":
      return <Fit {...props} task={onBench} />;
    case "prove":
      return (
        <>
          {shown.setting && <Runs shown={shown.setting} task={onBench} onAct={onAct} busy={busy} />}
          <EndTask onAct={onAct}>It was run</EndTask>
        </>
      );
    case "hand_over":
      return <HandOver {...props} />;
  }
}

function Recognise({ shown, onAct, busy }: Props) {
  return (
    <>
      <p>
        On the board, with a letter worn off:{" "}
        <strong className="font-mono text-xl whitespace-nowrap">{shown.printed}</strong>
      </p>
      <Choice
        label="Which board is it?"
        value={shown.recognised}
        disabled={busy}
        onChange={(event) => event.target.value && onAct({ do: "recognise", board: event.target.value })}
      >
        <option value="">not known yet</option>
        {shown.boards.map((each) => (
          <option key={each}>{each}</option>
        ))}
      </Choice>
      <EndTask onAct={onAct} needs={lacking({ "say which board it is": !shown.recognised })}>
        That is it
      </EndTask>
    </>
  );
}

/** What the machine's owner wrote down, where the board itself cannot be read. */
function Card({ shown }: Props) {
  if (shown.card.length === 0) return null;
  return (
    <p className="border-2 border-edge p-4">
      A card in the machine&apos;s door says:{" "}
      {shown.card.map((each) => (
        <strong key={each.title} className="block">
          {each.title}: {each.value}
        </strong>
      ))}
    </p>
  );
}

function Choose({ shown, onAct, busy }: Props) {
  return (
    <>
      <p className="text-faint">
        {shown.judged_on === "read"
          ? "Judged on what was read."
          : "Judged on factory settings, until the board is read: look again then."}
      </p>
      <ul className="border-t border-rule" aria-label="Boards">
        {shown.candidates?.map((each) => (
          <li key={each.board} className="flex flex-wrap items-center gap-3 border-b border-rule py-2.5">
            <div className="min-w-0 grow basis-60">
              <strong className="font-mono">{each.board}</strong>
              <span className="block text-sm text-faint">
                {each.missed.length > 0
                  ? `It cannot do as the old one did: ${each.missed.join(", ")}.`
                  : each.settable
                    ? `All ${each.functions} functions can be set as they were.`
                    : "No position of it can be used."}
              </span>
            </div>
            {each.board === shown.chosen ? (
              <span>taken</span>
            ) : (
              <Button
                aria-label={`Take it: ${each.board}`}
                disabled={busy}
                onClick={() => onAct({ do: "choose", board: each.board })}
              >
                Take it
              </Button>
            )}
          </li>
        ))}
      </ul>
      <EndTask onAct={onAct} needs={lacking({ "take a board": !shown.chosen })}>
        That one goes in
      </EndTask>
    </>
  );
}

const VERDICTS: Record<string, string> = {
  same: "as it was",
  "within tolerance": "within tolerance",
  off: "otherwise",
  "not on this board": "it has none",
  open: "open",
};

/** What the sheet works out of what was read: function by function, and how the new board is to be set. */
function CarryOver({ board, ...props }: Props & { board: Task["replacement"] }) {
  const { shown, onAct, busy } = props;
  return (
    <>
      <Card {...props} />
      <ul className="border-t border-rule" aria-label="Functions">
        {shown.carried?.map((each) => (
          <li key={each.function} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-2">
            <span className="min-w-0 grow basis-full sm:basis-52">{each.title}</span>
            <span className="w-20 text-right font-mono text-original">
              {each.verdict === "open" ? "?" : each.wanted}
            </span>
            <span className="w-20 text-right font-mono text-replacement">{each.got}</span>
            <span className="w-24 text-sm text-faint sm:w-32">{VERDICTS[each.verdict] ?? each.verdict}</span>
            {each.may_be.length > 0 && (
              <Choice
                label={`What ${each.title} shall be`}
                value={each.verdict === "open" ? "" : each.wanted}
                disabled={busy}
                onChange={(event) => {
                  const chosen = each.may_be.find((value) => value.words === event.target.value);
                  if (chosen) onAct({ do: "want", function: each.function, value: chosen.value });
                }}
              >
                <option value="">its position was not read</option>
                {each.may_be.map(({ words }) => (
                  <option key={words}>{words}</option>
                ))}
              </Choice>
            )}
          </li>
        ))}
      </ul>
      <h2>To be set so</h2>
      {shown.to_set && <Drawn board={board} positions={shown.to_set} side="replacement" />}
      <EndTask onAct={onAct}>On to the bench</EndTask>
    </>
  );
}

function Fit({ shown, task, onAct, busy }: Props) {
  const keyed = shown.keyed_in ?? [];
  return (
    <>
      {shown.to_set && <Drawn board={task.replacement} positions={shown.to_set} side="replacement" />}
      <h2>As it stands on the bench</h2>
      {shown.setting && (
        <Editors
          elements={task.replacement.elements.filter((each) => !keyed.includes(each.id))}
          values={shown.setting.positions}
          side="replacement"
          called="of the new board"
          disabled={busy}
          onChange={(positions) => onAct({ do: "set", positions })}
        />
      )}
      {shown.keying && <Panels shown={shown.keying} onAct={onAct} busy={busy} />}
      <h2>Its wires</h2>
      {shown.wiring && <Wires shown={shown.wiring} task={task} onAct={onAct} />}
      <EndTask onAct={onAct}>It is in</EndTask>
    </>
  );
}

const SAYS = ["as before", "not as before"];

function HandOver({ shown, onAct, busy }: Props) {
  return (
    <>
      <Caution title="Whoever runs this machine believes what you say now">
        Say that it behaves as before only where you have seen that it does.
      </Caution>
      <Choice
        label="How does it behave?"
        value={shown.says}
        disabled={busy}
        onChange={(event) => event.target.value && onAct({ do: "tell", what: event.target.value })}
      >
        <option value="">not said yet</option>
        {SAYS.map((each) => (
          <option key={each}>{each}</option>
        ))}
      </Choice>
      <EndTask onAct={onAct} needs={lacking({ "say how it behaves": !shown.says })} busy={busy}>
        Hand it over
      </EndTask>
    </>
  );
}
