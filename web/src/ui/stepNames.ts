/** The nine steps in the order of the work. */
export const NINE_STEPS = {
  rule_out: "Rule out",
  recognise: "Recognise",
  choose: "Choose",
  make_safe: "Make safe",
  record: "Record",
  carry_over: "Carry over",
  fit: "Fit",
  prove: "Prove",
  hand_over: "Hand over",
};

/** What a step may wait for: another step, or something beside them. */
export const STEP_NAMES: Record<string, string> = {
  ...NINE_STEPS,
  boards: "the machine’s other boards",
  energised: "the supply to be on again",
  cause: "the cause of the board’s death to be cleared",
};
