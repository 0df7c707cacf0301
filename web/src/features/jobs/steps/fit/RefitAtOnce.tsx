import type { Schemas } from "@/api/client";
import { ElementEditor } from "@/drawing/ElementEditor";
import { asSeen, setOtherwise } from "@/drawing/hanging";
import { HungBank } from "@/drawing/HungBank";
import type { Element, Position } from "@/drawing/types";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { Loading } from "@/ui/notices";
import { useState } from "react";
import { useJobBoard, useWiring } from "../../api";
import { Alike } from "./InHandPart";
import { NotAsPlanned } from "./ReadBack";
import { inTurn } from "../../entries/inTurn";
import type { StepProps } from "../../stepProps";

type Props = StepProps & { fitting: Schemas["FittingShown"] };
const BEFORE_THE_WIRES = ["hand", "mount"];
const LEFT_TO_THE_FULL = ["drill", "last look"];

/** Whether the refit is plain: whole plugs, nothing to drill or cut, nothing that moves across. */
export function isPlain(fitting: Schemas["FittingShown"]): boolean {
  const plain = fitting.looks.every((look) => !LEFT_TO_THE_FULL.includes(look.group));
  return plain && fitting.no_plugs.length === 0 && fitting.kit_steps.length === 0;
}

/** The refit on one screen: the new board read back without the plan in sight, and all that is plugged and looked at. */
export function RefitAtOnce({ job, put, fitting }: Props) {
  const board = useJobBoard(job, "replacement");
  const wiring = useWiring(job);
  const [read, setRead] = useState<Record<string, Position>>({});
  const [reading, setReading] = useState<string | null>(null);
  if (!board.data || !wiring.data) return <Loading what="Laying out what is to be fitted" />;
  const elements = board.data.elements.filter((each) => fitting.by_hand.includes(each.id));
  const unread = elements.filter((each) => !job.readbacks[each.id] || fitting.differing.includes(each.id));
  const looks = fitting.looks.filter((each) => !each.key.startsWith("on ") && !job.looks[each.key]);
  const first = looks.filter((each) => BEFORE_THE_WIRES.includes(each.group));
  const after = looks.filter((each) => !BEFORE_THE_WIRES.includes(each.group));
  const steps = wiring.data.steps.filter((step) => !job.ticked[step.key]);
  const kit = fitting.kit.filter((line) => line.needed === "needed" && (job.kit[line.item] ?? 0) < line.count);
  const off = Object.entries(job.removed)
    .filter(([, each]) => !each.back)
    .sort(([, a], [, b]) => b.n - a.n);
  const moving = fitting.moving.filter((part) => part.value === null || part.value === "to move");
  const switches = (element: Element) => {
    const [is, wanted] = [job.readbacks[element.id]?.value as Position | undefined, fitting.planned[element.id]];
    return is === undefined || wanted === undefined ? [element.id] : setOtherwise(element, is, wanted);
  };
  const ready = unread.every((each) => read[each.id] !== undefined);
  const hand = job.in_hand === null ? 1 : 0;
  if (hand + unread.length + looks.length + steps.length + kit.length + off.length + moving.length === 0) return null;
  const done = () =>
    void inTurn(put, [
      ...(hand ? [{ target: "in_hand" as const, after: { number: job.replacement ?? "" } }] : []),
      ...unread.map((each) => ({
        target: `readback.${each.id}` as const,
        after: { value: read[each.id] as Position },
        read_how: "by eye",
      })),
      ...kit.map((line) => ({ target: `kit.${line.item}` as const, after: line.count })),
      ...moving.map((part) => ({ target: `moving.${part.id}` as const, after: "moved" as const })),
      ...first.map(lookAt),
      ...steps.map((step) => ({ target: `ticked.${step.key}` as const, after: true as const })),
      ...after.map(lookAt),
      ...off.map(([id, each]) => ({
        target: `removed.${id}` as const,
        after: { what: each.what, kind: each.kind, count: each.count, place: each.place, back: true },
      })),
    ]);
  return (
    <section aria-label="Refit" className="flex flex-col gap-4 border-2 border-text p-4">
      {unread.map((element) => (
        <div key={element.id} className="flex flex-col gap-2">
          <h3>
            Set {element.id} {element.title}
          </h3>
          {read[element.id] === undefined && reading !== element.id ? (
            <Planned element={element} value={fitting.planned[element.id]} />
          ) : (
            <p className="text-faint">The plan is out of sight while it is read back.</p>
          )}
          <p>Then look at the board, and read it back:</p>
          <div
            onFocusCapture={() => setReading(element.id)}
            onBlurCapture={() => setReading((old) => (old === element.id ? null : old))}
          >
            <ElementEditor
              element={element}
              value={read[element.id]}
              side="replacement"
              unreadable={false}
              onChange={(value) => setRead((old) => ({ ...old, [element.id]: value }))}
            />
          </div>
          {fitting.differing.includes(element.id) && <NotAsPlanned names={switches(element)} />}
        </div>
      ))}
      {hand > 0 && <Alike alike={fitting.alike} />}
      <ol className="list-decimal pl-6" aria-label="All of it">
        {hand > 0 && (
          <li>
            On the board in your hand stands <span className="font-mono">{job.replacement}</span>
          </li>
        )}
        {kit.map((line) => (
          <li key={line.item}>
            There: {line.count} × {line.item}
          </li>
        ))}
        {moving.map((part) => (
          <li key={part.id}>
            Moved across: {part.what}
            {part.caution && <strong> ({part.caution})</strong>}
          </li>
        ))}
        {first.map((each) => (
          <li key={each.key}>{each.words}</li>
        ))}
        {steps.map((step) => (
          <li key={step.key}>{step.words}</li>
        ))}
        {after.map((each) => (
          <li key={each.key}>{each.words}</li>
        ))}
        {off.map(([id, each]) => (
          <li key={id}>Back on: {each.what}</li>
        ))}
      </ol>
      {!job.closed && (
        <Button
          kind="main"
          className="min-h-14 self-start"
          needs={lacking({ "read back what is set": !ready })}
          onClick={done}
        >
          All of this is done
        </Button>
      )}
    </section>
  );
}

/** What an element is set to, drawn as it hangs. */
function Planned({ element, value }: { element: Element; value: Position | undefined }) {
  if (value === undefined) return null;
  return element.kind === "dip" ? (
    <HungBank element={element} value={value} side="replacement" />
  ) : (
    <p className="font-mono text-3xl text-replacement">{asSeen(element, value)}</p>
  );
}

function lookAt({ key }: { key: string }) {
  return { target: `look.${key}` as const, after: true as const };
}
