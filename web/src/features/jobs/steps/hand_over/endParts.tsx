import { moneyText } from "@/ui/money";
import type { useHandOver } from "../../endApi";
import type { StepProps } from "../../stepProps";
import type { PartOfStep } from "../Parts";
import { Defects } from "./Defects";
import { Papers } from "./Papers";
import { Spent } from "./Spent";

type Over = NonNullable<ReturnType<typeof useHandOver>["data"]>;

/** What every hand-over has, whatever was done: defects left for later. */
export function defectsPart({ job, put }: StepProps): PartOfStep {
  const open = Object.values(job.defects).filter((each) => each.done !== true).length;
  return {
    id: "defects",
    title: "Defects left for later",
    status: open ? `${open} open` : "none",
    done: false,
    asks: false,
    body: <Defects job={job} put={put} />,
  };
}

/** Time and cost, against calling a service. */
export function spentPart({ job, put }: StepProps, { spent }: Over): PartOfStep {
  return {
    id: "spent",
    title: "Time and cost",
    status: `${spent.not_entered.length ? "estimated " : ""}${moneyText(spent.own_total, spent.currency)} against ${moneyText(spent.service_total, spent.currency)}`,
    done: false,
    asks: false,
    body: <Spent job={job} put={put} spent={spent} />,
  };
}

/** The papers, each by its name. */
export function papersPart({ job }: StepProps, { seal }: Over, names: string): PartOfStep {
  return {
    id: "papers",
    title: "Papers",
    status: names,
    done: false,
    asks: false,
    body: <Papers job={job} seal={seal} />,
  };
}
