"""What the nine steps are called."""

NAMES = {
    "rule_out": "Rule out", "recognise": "Recognise", "choose": "Choose", "make_safe": "Make safe", "record": "Record",
    "carry_over": "Carry over", "fit": "Fit", "prove": "Prove", "hand_over": "Hand over",
}  # fmt: skip
