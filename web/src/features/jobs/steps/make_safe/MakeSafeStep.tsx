import { Button } from "@/ui/Button";
import { Part } from "@/ui/Part";
import { Caution, Loading, ProblemNotice } from "@/ui/notices";
import { useState } from "react";
import { useMakeSafe, useRecord } from "../../api";
import { RefusalAt } from "../../entries/Refusal";
import type { StepProps } from "../../stepProps";
import { isCleared } from "../../cleared";
import { isSameNumber } from "../../sameNumber";
import { Energise } from "../Energise";
import { goTo, Next } from "../Next";
import { RemovalPart } from "../RemovalPart";
import { HoldPoint } from "./HoldPoint";
import { LockOff } from "./LockOff";

/** The hold points of this machine and board, in order; what needs the machine dead opens when all of them hold. */
export function MakeSafeStep({ job, put }: StepProps) {
  const safe = useMakeSafe(job);
  const [picked, setPicked] = useState<string | null>(null);
  const [one, setOne] = useState(false);
  if (!safe.data)
    return safe.error ? <ProblemNotice problem={safe.error} /> : <Loading what="Reading the hold points" />;
  const { points, read_at: readAt, unread } = safe.data;
  const done = job.steps.find((each) => each.id === "make_safe")?.state === "done";
  const open = points.filter((point) => point.held === null);
  const current = open.find((point) => point.id === picked) ?? open[0];
  const back = isCleared(job) && job.power === "off";
  const atOnce = isSameNumber(job) && !job.closed && open.length > 0 && !one;
  return (
    <div className="flex flex-col gap-4">
      {back && !job.closed && (
        <Energise
          job={job}
          put={put}
          fitting={{
            missing_dead: safe.data.still_off,
            missing_beside: safe.data.missing_beside,
            release: [...points].reverse(),
          }}
        />
      )}
      {!done && !back && !(atOnce && current) && (
        <Next
          job={job}
          step="make_safe"
          words={current ? `${current.title.toLowerCase()}.` : "everything holds."}
          ends={!current}
          button={current ? "To the hold point" : "Machine is dead - start work"}
          onGo={() =>
            current ? goTo(`hold-${current.id}`) : void put({ target: "confirmed.make_safe", after: { note: "" } })
          }
        />
      )}
      <Caution title="Hold points. Work on the dead machine starts when every one is confirmed">
        Local codes, the maker’s instructions and licensed practice come first. This page keeps what was confirmed, by
        whom and when; it does not say that anything is safe.
      </Caution>
      {unread.length > 0 && open.length > 0 && (
        <div role="note" className="border-l-4 border-text pl-3">
          <p className="font-semibold">Not read yet, and a dead board cannot be asked:</p>
          <p>
            {unread.join(", ")}. Where there is time, record it first, under Record. Never wait where there is danger.
          </p>
        </div>
      )}
      {atOnce && <LockOff key={open.map((point) => point.id).join()} put={put} safe={safe.data} />}
      {atOnce && (
        <Button kind="quiet" className="self-start" onClick={() => setOne(true)}>
          One by one, or skip one
        </Button>
      )}
      <ol className="flex flex-col gap-3">
        {points
          .filter((point) => !atOnce || point.held !== null)
          .map((point) => (
            <HoldPoint
              key={`${point.id} ${point.held ? "held" : "open"}`}
              refusal={<RefusalAt target={`hold.${point.id}`} />}
              point={point}
              readAt={readAt}
              lockedOffAt={safe.data.locked_off_at}
              disabled={job.closed}
              open={point.id === current?.id}
              onOpen={() => setPicked(point.id)}
              onHold={(said) => put({ target: `hold.${point.id}`, after: said })}
              onSkip={(reason) => void put({ target: `hold.${point.id}`, after: { skipped: true }, reason })}
              onTakeBack={() => void put({ target: `hold.${point.id}`, after: null })}
            />
          ))}
      </ol>
      {!done && !back && !job.closed && job.power === "off" && job.original && <CoversOff job={job} put={put} />}
      {!job.closed && !back && (done || job.power === "off") && (
        <div className="flex flex-col gap-1">
          <Button className="self-start" onClick={() => void put({ target: "power", after: "on", again: true })}>
            {job.power === "off" ? "The supply is on again" : "Need to go back inside? Lock off again"}
          </Button>
          <p className="text-sm text-faint">All hold points will have to be confirmed again.</p>
        </div>
      )}
    </div>
  );
}

/** While a wait runs, covers come off: logged here as they do, with the way in of an earlier job for one tap each. */
function CoversOff({ job, put }: StepProps) {
  const record = useRecord(job);
  return (
    <Part title="Covers off while it waits" status={`${Object.keys(job.removed).length} pieces logged`}>
      <p className="text-sm text-faint">
        Covers, screws and brackets only. Plugs, leads and parts stay where they are until every hold point holds.
      </p>
      {record.data ? (
        <RemovalPart job={job} put={put} record={record.data} />
      ) : (
        <ProblemNotice problem={record.error} />
      )}
    </Part>
  );
}
