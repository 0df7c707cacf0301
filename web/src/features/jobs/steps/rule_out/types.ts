import type { Schemas } from "@/api/client";
import type { StepProps } from "../../stepProps";

export type RuleOut = Schemas["RuleOutShown"];
export type Test = Schemas["TestShown"];
export type RuleOutProps = StepProps & { data: RuleOut };
