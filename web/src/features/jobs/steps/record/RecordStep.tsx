import { Button } from "@/ui/Button";
import { Caution, Loading, ProblemNotice } from "@/ui/notices";
import { Part } from "@/ui/Part";
import { useJobBoard, useRecord } from "../../api";
import type { StepProps } from "../../stepProps";
import { ElementsPart } from "./ElementsPart";
import { ObservedPart } from "./ObservedPart";
import { PartsPart } from "./PartsPart";
import { PicturesPart } from "./PicturesPart";
import { PoweredPart } from "./PoweredPart";
import { RemovalPart } from "../RemovalPart";
import { WiresPart } from "./WiresPart";

/** The old board as found: what needs power first, then, dead and locked off, everything that can be seen. */
export function RecordStep({ job, put }: StepProps) {
  const board = useJobBoard(job, "original");
  const record = useRecord(job);
  const problem = board.error ?? record.error;
  if (problem) return <ProblemNotice problem={problem} />;
  if (!board.data || !record.data) return <Loading what="Drawing the board" />;
  const { elements } = board.data;
  const waits = job.steps.find((each) => each.id === "record")?.waits_for ?? [];
  const dead = waits.length === 0;
  const live = elements.filter((each) => job.powered.includes(each.id));
  const seen = elements.filter((each) => !job.powered.includes(each.id));
  const unread = seen.filter((each) => job.found[each.id] === undefined).length;
  const liveLeft =
    live.filter((each) => job.found[each.id] === undefined).length +
    record.data.remembered.filter((each) => each.value === null).length;
  const plugs = record.data.plugs.filter((plug) => !plug.way && plug.pins.every((pin) => pin.wires.length === 0));
  const props = { job, put, record: record.data };
  return (
    <div className="flex flex-col">
      {(live.length > 0 || record.data.remembered.length > 0) && (
        <Part
          title="With power"
          status={job.answers === "no" ? "the board does not answer" : liveLeft ? `${liveLeft} to read` : "read"}
          open={liveLeft > 0 && job.answers !== "no"}
        >
          <PoweredPart {...props} elements={live} />
        </Part>
      )}
      <Part title="What it was seen to do" status={`${Object.keys(job.traces).length} timed`}>
        <ObservedPart {...props} />
      </Part>
      <Part title="Pictures" status={`${Object.keys(job.pictures).length} kept`}>
        <PicturesPart {...props} elements={elements} />
      </Part>
      {!dead && (
        <Caution title="The rest needs the machine dead">
          Switches, jumpers, wires and screws are recorded when the hold points under Make safe hold.
        </Caution>
      )}
      {dead && (
        <>
          <Part title="Settings" status={unread ? `${unread} to read` : "read"} open>
            <ElementsPart job={job} put={put} board={board.data} elements={seen} record={record.data} />
          </Part>
          {record.data.plugs.length > 0 && (
            <Part
              title="Wires"
              status={plugs.length ? `${plugs.map((plug) => plug.id).join(", ")} not recorded` : "recorded"}
              open={plugs.length > 0}
            >
              <WiresPart {...props} />
            </Part>
          )}
          <Part title="What came off" status={`${record.data.removed_left} pieces off`}>
            <RemovalPart {...props} />
          </Part>
          <Part
            title="Parts that move, and what only holds for now"
            status={`${record.data.moving.filter((each) => each.value === null).length} to look at`}
            open={record.data.acting.length > 0}
          >
            <PartsPart {...props} />
          </Part>
          <RecordDone job={job} put={put} missing={record.data.missing} />
        </>
      )}
    </div>
  );
}

function RecordDone({ job, put, missing }: StepProps & { missing: string[] }) {
  const done = job.steps.find((each) => each.id === "record")?.state === "done";
  if (job.closed) return null;
  if (done)
    return <p className="border-t border-rule pt-4 text-faint">The record is complete. A change opens it again.</p>;
  return (
    <div className="flex flex-col gap-2 border-t border-rule pt-4">
      {missing.length > 0 && (
        <>
          <p className="font-semibold">Still missing</p>
          <ul className="list-disc pl-5">
            {missing.map((each) => (
              <li key={each}>{each}</li>
            ))}
          </ul>
          <p className="text-faint">What cannot be read is entered as ?.</p>
        </>
      )}
      <Button
        kind="main"
        className="self-start"
        disabled={missing.length > 0}
        onClick={() => void put({ target: "confirmed.record", after: { note: "" } })}
      >
        The record is complete
      </Button>
    </div>
  );
}
