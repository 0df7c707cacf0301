import { render, screen, waitFor } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { useState } from "react";
import { describe, expect, it } from "vitest";
import type { Changing, Draft, DraftFunction } from "../api";
import { Grid } from "./Grid";

const rinse: DraftFunction = {
  id: "rinse",
  title: "Rinse",
  type: "duration",
  unit: "s",
  choices: [],
  importance: "behaviour",
  said: false,
  points: [],
  cells: [],
  reads: "",
  scale: 1,
  offset: 0,
  too_large: false,
  notes: [],
};
const POINTS = ["S1.1", "S1.2"];
const ways = ["off", "on"].flatMap((one) => ["off", "on"].map((two) => [one, two]));

/** The grid as a page has it: what was sent comes back after a while, as the server has it. */
function Slow({ after }: { after: number }) {
  const [given, setGiven] = useState(rinse);
  const [version, setVersion] = useState(1);
  const draft = {
    version,
    findings: [],
    points: POINTS.map((id) => ({ id, positions: 2, first: "off" })),
    elements: [{ id: "S1", points: POINTS, values: ["off", "on"] }],
  } as unknown as Draft;
  const change = (({ body }: { body: { points: string[]; cells: string[] } }) => {
    setTimeout(() => {
      const cells = ways.map((at, row) => ({ at, text: body.cells[row] ?? "", wrong: "" }));
      setGiven((old) => ({ ...old, said: true, points: body.points, cells }));
      setVersion((old) => old + 1);
    }, after);
  }) as unknown as Changing["change"];
  return <Grid draft={draft} changing={{ change } as Changing} given={given} />;
}

describe("the grid of a new function", () => {
  it.each([0, 300, 1200])(
    "keeps every cell and the hand where it is, however late the first answer comes: %d ms",
    async (after) => {
      // a defect: the first answer put another table in the place of this one; the focus fell to the page, and cells were lost
      render(<Slow after={after} />);
      for (const point of POINTS) await userEvent.click(screen.getByRole("checkbox", { name: point }));
      const cells = () => screen.getAllByRole<HTMLInputElement>("textbox", { name: /^Rinse with/ });
      await userEvent.click(cells()[0] as HTMLElement);
      for (const text of ["11", "12", "13", "14"]) {
        await userEvent.keyboard(text);
        // longer than the pause after which it is sent
        await new Promise((resolve) => setTimeout(resolve, 700));
        await userEvent.keyboard("{Enter}");
      }
      expect(cells().map((each) => each.value)).toEqual(["11", "12", "13", "14"]);
      await userEvent.click(document.body);
      await new Promise((resolve) => setTimeout(resolve, after + 50));
      await waitFor(() => expect(cells().map((each) => each.value)).toEqual(["11", "12", "13", "14"]));
    },
    30_000,
  );
});
