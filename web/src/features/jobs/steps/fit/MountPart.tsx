import type { Schemas } from "@/api/client";
import { Overlay } from "@/drawing/Overlay";
import type { BoardDocument } from "@/drawing/types";
import { Caution } from "@/ui/notices";
import { useBeside } from "../../api";
import type { StepProps } from "../../stepProps";
import { Looks } from "./Looks";

/** How the new board sits where the old one was: which holes serve, which are new, what to keep clear. */
export function MountPart({ job, put, fitting }: StepProps & { fitting: Schemas["FittingShown"] }) {
  const beside = useBeside(job, job.replacement ?? "");
  const mounting = fitting.mounting;
  const drill = fitting.looks.filter((each) => each.group === "drill");
  return (
    <>
      {mounting && beside.data && (
        <Overlay
          original={beside.data.original as BoardDocument}
          replacement={beside.data.replacement as BoardDocument}
          turn={mounting.turn}
          shift={[mounting.right_mm, mounting.up_mm]}
          newHoles={mounting.new_holes}
        />
      )}
      {mounting && mounting.beyond.length > 0 && <p>Keep clear: {mounting.beyond.join("; ")}.</p>}
      {drill.length > 0 && (
        <Caution title="Before drilling">
          Take the board out of the cabinet, catch the swarf, look at what is behind. A hole cannot be taken back: is
          there none that serves?
        </Caution>
      )}
      <Looks job={job} put={put} looks={[...drill, ...fitting.looks.filter((each) => each.group === "mount")]} />
    </>
  );
}
