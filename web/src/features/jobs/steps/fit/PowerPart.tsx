import type { Schemas } from "@/api/client";
import { Part } from "@/ui/Part";
import { useAway } from "@/with_you/useAway";
import { usePresses } from "../../api";
import type { StepProps } from "../../stepProps";
import { OverPort } from "../OverPort";
import { LearningPart } from "./LearningPart";
import { LivePanel } from "./LivePanel";
import { Looks } from "./Looks";
import { PortWrite } from "./PortWrite";
import { ReadBack } from "./ReadBack";
import { Reenter } from "./Reenter";

/** The set-up that needs power: keyed in, written over the port, learned, entered again; all of it read back. */
export function PowerPart({ job, put, fitting }: StepProps & { fitting: Schemas["FittingShown"] }) {
  const presses = usePresses(job);
  const away = useAway();
  const panels = presses.data?.panels ?? [];
  const read = fitting.by_panel.filter((name) => name in job.readbacks).length;
  const wrong = fitting.differing.filter((name) => fitting.by_panel.includes(name));
  const keyed = panels.filter((_, index) => job.looks[`on panel ${index}`]).length;
  const entered = fitting.reenter.filter((each) => each.id in job.reentered).length;
  const before = fitting.looks.filter((look) => look.group === "entering");
  return (
    <div>
      {(fitting.cleared || fitting.order.length > 0) && (
        <p className="py-2">
          {fitting.cleared && `A board that knows nothing yet shows: ${fitting.cleared}. `}
          {fitting.order.length > 0 && `After power: ${fitting.order.join(", then ")}.`}
        </p>
      )}
      {before.length > 0 && (
        <Part
          title="Before anything is keyed in"
          status={`${before.filter((look) => look.done).length} of ${before.length} looked at`}
          open={before.some((look) => !job.looks[look.key])}
        >
          <Looks job={job} put={put} looks={before} />
        </Part>
      )}
      {fitting.port && fitting.by_panel.length > 0 && (
        <Part title="Over the service port" status="write, read back, compare" open={read < fitting.by_panel.length}>
          <OverPort instead="Key it in by hand and read it back by eye, below.">
            <PortWrite job={job} put={put} />
          </OverPort>
        </Part>
      )}
      {panels.length > 0 && (
        <Part
          title="Key it in"
          status={`${keyed} of ${panels.length} panels done`}
          open={(!fitting.port || away) && keyed < panels.length}
        >
          {panels.map((panel, index) => (
            <LivePanel key={index} job={job} put={put} panel={panel} index={index} />
          ))}
        </Part>
      )}
      {fitting.learning && (
        <Part title="Learning run" status={job.learned ? "made" : "to be made"} open={!job.learned}>
          <LearningPart job={job} put={put} fitting={fitting} />
        </Part>
      )}
      {fitting.reenter.length > 0 && (
        <Part
          title="Enter again"
          status={`${entered} of ${fitting.reenter.length} entered`}
          open={entered < fitting.reenter.length}
        >
          <Reenter job={job} put={put} fitting={fitting} />
        </Part>
      )}
      {fitting.by_panel.length > 0 && (
        <Part
          title="Read back with power on"
          status={
            wrong.length ? `${wrong.join(", ")} not as planned` : `${read} of ${fitting.by_panel.length} read back`
          }
          open={read < fitting.by_panel.length && keyed === panels.length}
        >
          <ReadBack job={job} put={put} fitting={fitting} names={fitting.by_panel} />
        </Part>
      )}
    </div>
  );
}
