import { Loading, ProblemNotice } from "@/ui/notices";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, type ComponentType } from "react";
import type { StepProps } from "../stepProps";

/** Each step is loaded when it is opened: whoever records a board waits for nothing else. */
const BODIES: Record<string, () => Promise<ComponentType<StepProps>>> = {
  rule_out: async () => (await import("../steps/rule_out/RuleOutStep")).RuleOutStep,
  recognise: async () => (await import("../steps/recognise/RecogniseStep")).RecogniseStep,
  choose: async () => (await import("../steps/choose/ChooseStep")).ChooseStep,
  make_safe: async () => (await import("../steps/make_safe/MakeSafeStep")).MakeSafeStep,
  record: async () => (await import("../steps/record/RecordStep")).RecordStep,
  carry_over: async () => (await import("../steps/carry_over/CarryStep")).CarryStep,
  fit: async () => (await import("../steps/fit/FitStep")).FitStep,
  prove: async () => (await import("../steps/prove/ProveStep")).ProveStep,
  hand_over: async () => (await import("../steps/hand_over/HandOverStep")).HandOverStep,
};

const bodyOf = (id: string) => ({
  queryKey: ["body of a step", id],
  queryFn: async () => ({ Body: (await BODIES[id]?.()) ?? null }),
  staleTime: Infinity,
  gcTime: Infinity,
});

/** What is done in a step. */
export function StepBody({ id, ...props }: StepProps & { id: string }) {
  const { data, error } = useQuery(bodyOf(id));
  if (data) return data.Body && <data.Body {...props} />;
  return error ? <ProblemNotice problem={error} /> : <Loading what="Opening the step" />;
}

/** Have every step at hand once what is looked at has come. */
export function useEveryStep(settled: boolean) {
  const queries = useQueryClient();
  useEffect(() => {
    if (settled) for (const id of Object.keys(BODIES)) void queries.prefetchQuery(bodyOf(id));
  }, [settled, queries]);
}
