import { CarryStep } from "../steps/carry_over/CarryStep";
import { ChooseStep } from "../steps/choose/ChooseStep";
import { FitStep } from "../steps/fit/FitStep";
import { HandOverStep } from "../steps/hand_over/HandOverStep";
import { MakeSafeStep } from "../steps/make_safe/MakeSafeStep";
import { ProveStep } from "../steps/prove/ProveStep";
import { RecogniseStep } from "../steps/recognise/RecogniseStep";
import { RecordStep } from "../steps/record/RecordStep";
import { RuleOutStep } from "../steps/rule_out/RuleOutStep";
import type { StepProps } from "../stepProps";
import type { ComponentType } from "react";

const BODIES: Record<string, ComponentType<StepProps>> = {
  rule_out: RuleOutStep,
  recognise: RecogniseStep,
  choose: ChooseStep,
  make_safe: MakeSafeStep,
  record: RecordStep,
  carry_over: CarryStep,
  fit: FitStep,
  prove: ProveStep,
  hand_over: HandOverStep,
};

/** What is done in a step. */
export function StepBody({ id, ...props }: StepProps & { id: string }) {
  const Body = BODIES[id];
  return Body ? <Body {...props} /> : null;
}
