import { numberFrom } from "@/ui/numbers";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { useState } from "react";
import type { StepProps } from "../../stepProps";

type Props = StepProps & { element: string };

/** A trimmer between two marks, read as an angle clockwise from the top. */
export function AngleReading({ job, put, element }: Props) {
  const kept = job.angles[element] as { degrees?: number; within?: number } | undefined;
  const [degrees, setDegrees] = useState(String(kept?.degrees ?? ""));
  const [within, setWithin] = useState(String(kept?.within ?? 5));
  const ready = degrees.trim() !== "" && Number.isFinite(numberFrom(degrees)) && Number.isFinite(numberFrom(within));
  return (
    <div className="flex flex-wrap items-end gap-3">
      <div className="w-40">
        <TextField
          label="Angle in degrees"
          hint="clockwise from the top"
          inputMode="text"
          value={degrees}
          disabled={job.closed}
          onChange={(event) => setDegrees(event.target.value)}
        />
      </div>
      <div className="w-40">
        <TextField
          label="Give or take"
          hint="degrees"
          inputMode="decimal"
          value={within}
          disabled={job.closed}
          onChange={(event) => setWithin(event.target.value)}
        />
      </div>
      {!job.closed && (
        <Button
          className="mb-6"
          needs={lacking({ "the angle": !ready })}
          onClick={() =>
            void put({
              target: `angle.${element}`,
              after: { degrees: numberFrom(degrees), within: numberFrom(within) },
            })
          }
        >
          Keep the angle
        </Button>
      )}
      {!job.closed && kept && (
        <Button kind="quiet" className="mb-6" onClick={() => void put({ target: `angle.${element}`, after: null })}>
          Take it back
        </Button>
      )}
    </div>
  );
}
