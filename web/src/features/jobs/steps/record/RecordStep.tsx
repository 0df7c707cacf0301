import type { Schemas } from "@/api/client";
import { Caution, Loading, ProblemNotice } from "@/ui/notices";
import { memo, useDeferredValue } from "react";
import { useJobBoard, useRecord, type Job } from "../../api";
import type { Element } from "@/drawing/types";
import { inTurn } from "../../entries/inTurn";
import { isSameNumber } from "../../sameNumber";
import type { StepProps } from "../../stepProps";
import { goTo, Next } from "../Next";
import { nextOf, Parts, placeOf, type PartOfStep } from "../Parts";
import { Assume } from "./Assume";
import { ElementsPart } from "./ElementsPart";
import { NothingRead } from "./NothingRead";
import { ObservedPart } from "./ObservedPart";
import { PartsPart } from "./PartsPart";
import { PicturesPart } from "./PicturesPart";
import { PoweredPart } from "./PoweredPart";
import { Between } from "../Between";
import { RemovalPart } from "../RemovalPart";
import { WiresPart } from "./WiresPart";

/** The old board as found: what needs power first, then, dead and locked off, everything that can be seen. */
export function RecordStep({ job, put }: StepProps) {
  const board = useJobBoard(job, "original");
  const record = useRecord(job);
  // an answer of the server waits for a hand that is at work
  const shown = useDeferredValue(record.data);
  const problem = board.error ?? record.error;
  if (problem) return <ProblemNotice problem={problem} />;
  if (!board.data || !shown) return <Loading what="Drawing the board" />;
  return <Record job={job} put={put} board={board.data} record={shown} />;
}

type Props = StepProps & { board: Schemas["BoardShown"]; record: Schemas["RecordShown"] };

const Record = memo(function Record({ job, put, board, record }: Props) {
  const { elements } = board;
  const waits = job.steps.find((each) => each.id === "record")?.waits_for ?? [];
  const dead = waits.length === 0;
  const live = elements.filter((each) => job.powered.includes(each.id));
  const seen = elements.filter((each) => !job.powered.includes(each.id));
  const unread = seen.filter((each) => job.found[each.id] === undefined).length;
  const liveLeft =
    live.filter((each) => job.found[each.id] === undefined).length +
    record.remembered.filter((each) => each.value === null).length;
  const plugs = record.plugs.filter((plug) => !plug.way && plug.pins.every((pin) => pin.wires.length === 0));
  const props = { job, put, record };
  const moving = record.moving.filter((each) => each.value === null).length;
  const withPower: PartOfStep[] = [
    ...(live.length > 0 || record.remembered.length > 0
      ? [
          {
            id: "powered",
            title: "With power",
            status: job.answers === "no" ? "the board does not answer" : liveLeft ? `${liveLeft} to read` : "read",
            done: liveLeft === 0 || job.answers === "no",
            body: <PoweredPart {...props} elements={live} />,
          },
        ]
      : []),
    {
      id: "observed",
      title: "What it was seen to do",
      status: `${Object.keys(job.traces).length} timed`,
      done: false,
      asks: false,
      body: <ObservedPart {...props} />,
    },
    {
      id: "pictures",
      title: "Pictures",
      status: `${Object.keys(job.pictures).length} kept`,
      done: false,
      asks: false,
      body: <PicturesPart {...props} elements={elements} />,
    },
  ];
  const onDead: PartOfStep[] = [
    {
      id: "settings",
      title: "Settings",
      status: unread ? `${unread} to read` : "read",
      done: unread === 0,
      open: true,
      body: <ElementsPart job={job} put={put} board={board} elements={seen} record={record} />,
    },
    ...(record.plugs.length > 0
      ? [
          {
            id: "wires",
            title: "Wires",
            status: plugs.length ? `${plugs.map((plug) => plug.id).join(", ")} not recorded` : "recorded",
            done: plugs.length === 0,
            body: <WiresPart {...props} />,
          },
        ]
      : []),
    ...(job.together
      ? [
          {
            id: "between",
            title: "Wires to the machine’s other boards",
            status: `${Object.keys(job.between).length} recorded`,
            done: false,
            asks: false,
            body: <Between job={job} put={put} adds />,
          },
        ]
      : []),
    {
      id: "off",
      title: "What came off",
      status: `${record.removed_left} pieces off`,
      done: false,
      asks: false,
      body: <RemovalPart {...props} />,
    },
    {
      id: "moves",
      title: "Parts that move, and what only holds for now",
      status: `${moving} to look at`,
      done: record.acting.length === 0 && moving === 0,
      asks: record.acting.length > 0,
      body: <PartsPart {...props} />,
    },
  ];
  const next = nextOf(dead ? [...withPower, ...onDead] : withPower);
  const missing = record.missing;
  const complete = dead && missing.length === 0;
  const whole = wholePlugs(job, record, elements);
  const finished = job.steps.find((each) => each.id === "record")?.state === "done";
  return (
    <div className="flex flex-col gap-2">
      {!finished && (dead || next) && (
        <Next
          job={job}
          step="record"
          words={
            complete
              ? "everything is recorded."
              : dead && whole
                ? `every position is read; ${whole.join(", ")} go over whole.`
                : next
                  ? `${next.title.toLowerCase()}: ${next.status}.`
                  : `${missing[0]}.`
          }
          ends={complete || (dead && whole !== null)}
          button={complete || (dead && whole) ? "The record is complete" : "Show me"}
          onGo={() =>
            complete || (dead && whole)
              ? void inTurn(put, [
                  ...(whole ?? []).map((name) => ({ target: `plug.${name}` as const, after: "whole" as const })),
                  { target: "confirmed.record", after: { note: "" } },
                  // set as the old one stood: there is nothing to decide
                  ...(isSameNumber(job) ? [{ target: "confirmed.carry_over" as const, after: { note: "" } }] : []),
                ])
              : goTo(next ? placeOf(next.id) : "still-missing")
          }
        />
      )}
      <NothingRead job={job} put={put} left={elements.filter((each) => job.found[each.id] === undefined).length} />
      <Assume job={job} put={put} />
      <Parts parts={withPower} keep />
      {!dead && (
        <Caution title="The rest needs the machine dead">
          Switches, jumpers, wires and screws are recorded when the hold points under Make safe hold.
        </Caution>
      )}
      {dead && (
        <>
          <Parts parts={onDead} keep />
          <RecordDone job={job} missing={missing} />
        </>
      )}
    </div>
  );
});

/** The plugs that go over whole where nothing else is missing and the very same number goes in; null anywhere else. */
function wholePlugs(job: Job, record: Schemas["RecordShown"], elements: Element[]): string[] | null {
  const read = elements.every((each) => job.found[each.id] !== undefined);
  const open = record.plugs.filter((plug) => !plug.way && plug.pins.every((pin) => pin.wires.length === 0));
  const only = record.missing.every((each) => each.startsWith("wires not recorded"));
  return isSameNumber(job) && read && only && open.length > 0 && open.every((plug) => plug.complete)
    ? open.map((plug) => plug.id)
    : null;
}

function RecordDone({ job, missing }: { job: Job; missing: string[] }) {
  const done = job.steps.find((each) => each.id === "record")?.state === "done";
  if (job.closed) return null;
  if (done)
    return <p className="border-t border-rule pt-4 text-faint">The record is complete. A change opens it again.</p>;
  if (missing.length === 0) return null;
  return (
    <div id="still-missing" tabIndex={-1} className="flex scroll-mt-24 flex-col gap-2 border-t border-rule pt-4">
      <p className="font-semibold">Still missing</p>
      <ul className="list-disc pl-5">
        {missing.map((each) => (
          <li key={each}>{each}</li>
        ))}
      </ul>
      <p className="text-faint">What cannot be read is entered as ?.</p>
    </div>
  );
}
