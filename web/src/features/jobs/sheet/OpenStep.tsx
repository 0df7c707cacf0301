import type { Job } from "../api";
import type { StepProps } from "../stepProps";
import { FirstTime } from "./FirstTime";
import { SkippedBanner } from "./SkippedBanner";
import { StepBody } from "./StepBody";
import { Unbroken } from "@/ui/Unbroken";
import { memo } from "react";
import { clock } from "@/ui/times";

type Props = StepProps & { step: Job["steps"][number]; inHand: boolean; known: boolean };

/** A step with what is done in it; one that is done says first what came of it. */
export const OpenStep = memo(function OpenStep({ job, put, step, inHand, known }: Props) {
  const heading = `step-${step.id}`;
  return (
    <section aria-labelledby={heading} className="border-t border-rule pt-1 pb-4 desk:pt-2">
      <h2
        id={heading}
        className={`flex flex-wrap items-baseline gap-x-3 ${inHand ? "text-xl font-bold" : "text-base"}`}
      >
        {step.name}
        {step.result && (
          <span className="text-base font-normal">
            {step.result}
            {step.at && (
              <span className="text-faint">
                {" "}
                ({step.by}, {clock(step.at)})
              </span>
            )}
          </span>
        )}
      </h2>
      {inHand && <SkippedBanner job={job} />}
      {inHand && !known && !job.closed && <FirstTime step={step.id} />}
      <div className="pt-2">
        <Unbroken place={step.name} on={[job]}>
          <StepBody job={job} id={step.id} put={put} />
        </Unbroken>
      </div>
    </section>
  );
});
