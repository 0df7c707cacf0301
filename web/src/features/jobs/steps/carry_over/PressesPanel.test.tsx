import type { Schemas } from "@/api/client";
import { render, screen } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { PressesPanel } from "./PressesPanel";

const line = (more: Partial<Schemas["PressLine"]>): Schemas["PressLine"] => ({
  key: "",
  action: "up",
  times: 1,
  hold_s: 0,
  shows: "",
  asks: "",
  do: "",
  ...more,
});

describe("what is keyed in", () => {
  it("tells a dialogue by its questions, what is done until a sign, and what is never asked", () => {
    const presses = [
      line({ do: "Pair the key pad", key: "round key", hold_s: 5, shows: "3 blinks" }),
      line({ asks: "Longest filling?", key: "▼", times: 3, shows: "F1 90" }),
      line({ do: "Supply off, ten seconds, on again", shows: "lamp steady" }),
    ];
    const panels = [{ title: "Dialogue", sets: ["P01"], count: 5, presses }];
    render(<PressesPanel presses={{ panels, by_hand: [], unasked: ["P06"], count: 5, why_not: "" }} />);
    const rows = screen.getAllByRole("row").map((row) => row.textContent);
    expect(rows.slice(1)).toEqual([
      "Pair the key padround key hold 5 s3 blinks",
      "Longest filling?▼ 3 timesF1 90",
      "Supply off, ten seconds, on againlamp steady",
    ]);
    expect(screen.getByText(/never asks for P06/)).toBeTruthy();
  });
});
