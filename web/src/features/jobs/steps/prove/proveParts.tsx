import type { useProving } from "../../endApi";
import type { StepProps } from "../../stepProps";
import type { PartOfStep } from "../Parts";
import { CheckList, isAnswered } from "./CheckList";
import { Overrides } from "./Overrides";
import { Readings } from "./Readings";

type Plan = NonNullable<ReturnType<typeof useProving>["data"]>;

/** What can still be said in one tap: nothing where a line is not as it should be, or something is overridden. */
export function leftToLookAt({ checks, forced }: Plan) {
  const wrong = checks.some((each) => each.ok === false);
  return wrong || forced.length > 0 ? [] : checks.filter((each) => !isAnswered(each));
}

/** What is looked at on the machine; `asks` where it is what there is to begin with. */
export function checksPart({ job, put }: StepProps, { checks }: Plan, asks: boolean): PartOfStep {
  const looked = checks.filter(isAnswered).length;
  return {
    id: "checks",
    title: "Check list",
    status: `${looked} of ${checks.length} looked at`,
    done: looked === checks.length,
    asks,
    body: <CheckList job={job} put={put} lines={checks} />,
  };
}

/** The readings that the machine is to show; none where it has none. */
export function readingsPart({ job, put }: StepProps, { readings }: Plan): PartOfStep[] {
  const taken = readings.filter((each) => each.read).length;
  if (readings.length === 0) return [];
  return [
    {
      id: "readings",
      title: "Readings",
      status: `${taken} of ${readings.length} taken`,
      done: taken === readings.length,
      body: <Readings job={job} put={put} readings={readings} />,
    },
  ];
}

/** What is overridden for a test, until it is off. */
export function overridesPart({ job, put }: StepProps, plan: Plan): PartOfStep {
  return {
    id: "overrides",
    title: "Overrides",
    status: plan.forced.length ? `${plan.forced.length} still on` : "none on",
    done: plan.forced.length === 0,
    body: <Overrides job={job} put={put} plan={plan} />,
  };
}

/** What comes before any run. */
export function Guards() {
  return (
    <p className="hatched px-3 py-1">
      <strong>Guards on, people clear, by those who are qualified</strong>; local codes and licensed practice come
      first.
    </p>
  );
}
