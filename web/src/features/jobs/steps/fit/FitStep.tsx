import { Caution, Loading, ProblemNotice } from "@/ui/notices";
import { useRecord, useWiring } from "../../api";
import { useFitting } from "../../endApi";
import { isSameNumber } from "../../sameNumber";
import type { StepProps } from "../../stepProps";
import { goTo, Next } from "../Next";
import { NoteAndConfirm } from "../NoteAndConfirm";
import { nextOf, Parts, placeOf, type PartOfStep } from "../Parts";
import { RemovalPart } from "../RemovalPart";
import { Energise } from "../Energise";
import { InHandPart } from "./InHandPart";
import { KitPart } from "./KitPart";
import { KitSteps } from "./KitSteps";
import { Looks } from "./Looks";
import { MountPart } from "./MountPart";
import { MovePart } from "./MovePart";
import { PowerPart } from "./PowerPart";
import { PowerAtOnce } from "./PowerAtOnce";
import { ReadBack } from "./ReadBack";
import { isPlain, RefitAtOnce } from "./RefitAtOnce";
import { RunSheet } from "./RunSheet";

/** Fit: in the hand, on the dead machine one thing at a time, then with power what needs it. */
export function FitStep({ job, put }: StepProps) {
  const fitting = useFitting(job);
  const wiring = useWiring(job);
  const record = useRecord(job);
  if (fitting.error) return <ProblemNotice problem={fitting.error} />;
  if (!fitting.data) return <Loading what="Laying out what is to be fitted" />;
  const data = fitting.data;
  const dead = job.energised === null;
  const needed = data.kit.filter((line) => line.needed === "needed");
  const counted = needed.filter((line) => (job.kit[line.item] ?? 0) >= line.count).length;
  const open = (groups: string[]) => data.looks.filter((each) => groups.includes(each.group) && !job.looks[each.key]);
  const looks = (groups: string[]) => data.looks.filter((each) => groups.includes(each.group));
  const steps = wiring.data?.steps ?? [];
  const moved = steps.filter((step) => job.ticked[step.key]).length;
  const read = (names: string[]) => names.filter((name) => name in job.readbacks).length;
  const wrong = (names: string[]) => data.differing.filter((name) => names.includes(name));
  const behind = data.moving.filter((part) => part.value === null || part.value === "to move").length;
  const off = Object.values(job.removed).filter((each) => each.back !== true).length;
  const parts: PartOfStep[] = [
    {
      id: "kit",
      title: "What must be there",
      done: counted === needed.length,
      status: needed.length === 0 ? "nothing but the board" : `${counted} of ${needed.length} counted`,
      body: <KitPart job={job} put={put} kit={data.kit} />,
    },
    {
      id: "in-hand",
      title: "The board in your hand",
      done: job.in_hand !== null && open(["hand"]).length === 0,
      status: !job.in_hand
        ? "to be read"
        : open(["hand"]).length
          ? `${open(["hand"]).length} to look at`
          : job.in_hand.number,
      body: <InHandPart job={job} put={put} fitting={data} />,
    },
    {
      id: "hand",
      title: "Set in the hand",
      done: read(data.by_hand) === data.by_hand.length && wrong(data.by_hand).length === 0,
      status:
        data.by_hand.length === 0
          ? "nothing is set by hand on this board"
          : wrong(data.by_hand).length > 0
            ? `${wrong(data.by_hand).join(", ")} not as planned`
            : `${read(data.by_hand)} of ${data.by_hand.length} read back`,
      body: <ReadBack job={job} put={put} fitting={data} names={data.by_hand} drawn />,
    },
    ...(data.kit_steps.length > 0
      ? [
          {
            id: "kit-steps",
            title: "Fit the kit",
            done: data.kit_steps.every((each) => job.kit_steps[each.id]),
            status: `${data.kit_steps.filter((each) => job.kit_steps[each.id]).length} of ${data.kit_steps.length} steps`,
            body: <KitSteps job={job} put={put} steps={data.kit_steps} leaflet={data.leaflet} />,
          },
        ]
      : []),
    {
      id: "mount",
      title: "Mount",
      done: open(["drill", "mount"]).length === 0,
      status: data.mounting
        ? `${data.mounting.serving} holes serve, ${data.mounting.new_holes.length} new`
        : "no measures in the profiles",
      body: <MountPart job={job} put={put} fitting={data} />,
    },
    {
      id: "wires",
      title: "Wires, one at a time",
      done: wiring.isSuccess && moved === steps.length,
      status: wiring.isSuccess
        ? steps.length
          ? `${moved} of ${steps.length} moved`
          : "no wiring plan"
        : "not read yet",
      body: <RunSheet job={job} put={put} fitting={data} />,
    },
    ...(data.moving.length > 0
      ? [
          {
            id: "moving",
            title: "Parts that go across",
            done: behind === 0,
            status: behind ? `${behind} to move, or to say that they stay` : "none left behind",
            body: <MovePart job={job} put={put} fitting={data} />,
          },
        ]
      : []),
    {
      id: "second",
      title: "A second look before power",
      done: open(["second look", "place"]).length === 0,
      status: `${open(["second look", "place"]).length} open`,
      body: <Looks job={job} put={put} looks={looks(["second look", "place"])} />,
    },
    {
      id: "close",
      title: "Close up, last off first on",
      done: off === 0,
      status: Object.keys(job.removed).length === 0 ? "nothing was taken off" : `${off} still off`,
      body: record.data ? <RemovalPart job={job} put={put} record={record.data} /> : <Loading />,
    },
  ];
  const next = dead ? nextOf(parts) : undefined;
  const plain = isSameNumber(job) && isPlain(data) && job.uncleared.length === 0 && data.missing_beside.length === 0;
  return (
    <div className="flex flex-col gap-4">
      {!(plain && dead) && (
        <Next
          job={job}
          step="fit"
          words={
            next
              ? `${next.title.toLowerCase()}: ${next.status}.`
              : dead
                ? "back to power."
                : "what needs power, then say that it is fitted."
          }
          button="Show me"
          onGo={() => goTo(next ? placeOf(next.id) : dead ? "back-to-power" : "with-power")}
        />
      )}
      {dead ? (
        <Caution title="Power on last - and only after the final check">
          One thing at a time; no lead pinched, every routing kept. Local codes, the maker’s instructions and licensed
          practice come first.
        </Caution>
      ) : (
        <p className="border-y border-rule py-2">
          The supply is on since {clock(job.energised?.at)}. To go back to a wire, lock off again under “Make safe”:
          what follows then starts anew.
        </p>
      )}
      {wiring.error && <ProblemNotice problem={wiring.error} />}
      {plain && dead && <RefitAtOnce job={job} put={put} fitting={data} />}
      {plain && dead && !job.closed && data.missing_dead.length === 0 && <PowerAtOnce put={put} fitting={data} />}
      <Parts parts={parts} still={!dead || plain} />
      {dead && !job.closed && !(plain && data.missing_dead.length === 0) && (
        <div id="back-to-power" tabIndex={-1} className="scroll-mt-24">
          <Energise job={job} put={put} fitting={data} />
        </div>
      )}
      {!dead && (
        <div id="with-power" tabIndex={-1} className="scroll-mt-24">
          <PowerPart job={job} put={put} fitting={data} />
        </div>
      )}
      {!dead && (
        <>
          {data.missing_powered.length > 0 && !job.closed && <p>Not done yet: {data.missing_powered.join("; ")}.</p>}
          <NoteAndConfirm
            job={job}
            put={put}
            step="fit"
            label={data.missing_powered.length ? "Why this is left" : "Anything that was done otherwise than planned?"}
            confirm="Fitted and set as planned"
            needed={data.missing_powered.length > 0}
          />
        </>
      )}
    </div>
  );
}

function clock(at: unknown) {
  return typeof at === "string" ? new Date(at).toLocaleTimeString([], { timeStyle: "short" }) : "";
}
