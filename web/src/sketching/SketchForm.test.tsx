import { renderAsking, standInQueries } from "@/testing/queries";
import { standInServer } from "@/testing/server";
import { act, fireEvent, renderHook, screen, waitFor, within } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { SketchForm } from "./SketchForm";
import { useSketch } from "./useSketch";

const read = {
  words: ["S1: a bank of 8 switches; on is up, number 1 is at the left."],
  misread: [],
  elements: [],
  document: {},
};
const families = [{ id: "deck-oven", title: "Gas deck oven" }];

function shown(start = { marking: "K7-100", family: null as string | null }, answer: object = read) {
  const onKept = vi.fn();
  const asked = standInServer({
    "/api/sketches/read": { body: answer },
    "/api/sketches": { body: { part_number: "K7-100" } },
  });
  const page = renderAsking(<SketchForm start={start} families={families} onKept={onKept} />);
  return { onKept, asked, page };
}
const lines = () => screen.getByRole<HTMLTextAreaElement>("textbox", { name: "The sketch in lines" }).value;

describe("a board that nobody entered", () => {
  beforeEach(() => localStorage.clear());

  it("grows by taps, line by line, and gives the last one back", async () => {
    shown();
    await userEvent.click(screen.getByRole("button", { name: "Switch bank" }));
    const bank = within(screen.getByRole("region", { name: "Switch bank" }));
    expect(bank.getByRole<HTMLButtonElement>("button", { name: "Put it down" }).disabled).toBe(true);
    await userEvent.click(
      within(bank.getByRole("radiogroup", { name: "How many switches" })).getByRole("radio", { name: "8" }),
    );
    await userEvent.click(within(bank.getByRole("radiogroup", { name: "On is" })).getByRole("radio", { name: "up" }));
    expect(
      within(bank.getByRole("radiogroup", { name: "Number 1 is at the" })).queryByRole("radio", { name: "top" }),
    ).toBeNull();
    await userEvent.click(bank.getByRole("button", { name: "Put it down" }));
    await userEvent.click(screen.getByRole("button", { name: "Lamp" }));
    expect(lines()).toBe("S1 bank 8, on up\nlamp");
    expect(await screen.findByText(/a bank of 8 switches/)).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "Take the last one back" }));
    expect(lines()).toBe("S1 bank 8, on up");
  });

  it("takes any count typed digit by digit, and what is printed at pins, without a word of notation", async () => {
    shown();
    await userEvent.click(screen.getByRole("button", { name: "Plug" }));
    const plug = within(screen.getByRole("region", { name: "Plug" }));
    await userEvent.type(plug.getByLabelText("Another number"), "11");
    await userEvent.type(plug.getByLabelText("Printed at its pins, from pin 1"), "L N PE");
    await userEvent.click(plug.getByRole("button", { name: "Put it down" }));
    await userEvent.click(screen.getByRole("button", { name: "Code to key in" }));
    const code = within(screen.getByRole("region", { name: "Code to key in" }));
    await userEvent.click(code.getByRole("radio", { name: "4" }));
    await userEvent.click(code.getByRole("button", { name: "Put it down" }));
    expect(lines()).toBe("C1 plug 11, marked L N PE\nK1 code 4");
  });

  it("says at its line what cannot be read, and is not kept so", async () => {
    shown(undefined, { ...read, words: [], misread: [{ line: 1, expected: "a number of places from 1 to 16" }] });
    await userEvent.type(screen.getByRole("textbox", { name: "The sketch in lines" }), "S1 bank eight");
    expect((await screen.findByRole("alert")).textContent).toBe("Line 1: expected a number of places from 1 to 16.");
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "Keep the sketch" }).disabled).toBe(true);
  });

  it("is kept once what was typed last was read back, and no sooner", async () => {
    let answered = () => {};
    standInServer({
      "/api/sketches/read": ({ body }) =>
        (body as { lines: string }).lines === ""
          ? { body: { ...read, words: [] } }
          : new Promise((resolve) => (answered = () => resolve({ body: read }))),
    });
    renderAsking(<SketchForm start={{ marking: "K7-100", family: null }} families={families} onKept={vi.fn()} />);
    const keep = () => screen.getByRole<HTMLButtonElement>("button", { name: "Keep the sketch" });
    fireEvent.change(screen.getByRole("textbox", { name: "The sketch in lines" }), { target: { value: "R1 dial" } });
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(keep().disabled).toBe(true);
    answered();
    await waitFor(() => expect(keep().disabled).toBe(false));
  });

  it("asks what kind of machine it is only where none is taken from the list", async () => {
    shown();
    expect(screen.getByLabelText("What kind it is")).toBeTruthy();
    await userEvent.selectOptions(screen.getByLabelText("Kind of machine"), "deck-oven");
    expect(screen.queryByLabelText("What kind it is")).toBeNull();
  });

  it("is still there when the page was left, and gone when it was kept", async () => {
    const first = shown();
    await userEvent.type(screen.getByRole("textbox", { name: "The sketch in lines" }), "R1 dial");
    first.page.unmount();
    const { onKept } = shown();
    expect(lines()).toBe("R1 dial");
    await screen.findByRole("list", { name: "Read back" });
    await userEvent.click(screen.getByRole("button", { name: "Keep the sketch" }));
    await waitFor(() => expect(onKept).toHaveBeenCalled());
    expect(localStorage.length).toBe(0);
  });

  it("says so when its picture does not arrive, and is kept again under the number that it has", async () => {
    const asked = standInServer({
      "/api/sketches/read": { body: read },
      "/api/sketches": { body: { part_number: "SQ-unmarked-1" } },
    });
    const { result } = renderHook(() => useSketch({ marking: "", family: "deck-oven" }), {
      wrapper: standInQueries().wrapper,
    });
    act(() => result.current.setPicture({ file: new File(["1"], "board.jpg", { type: "image/jpeg" }), url: "" }));
    await act(() => result.current.keep.mutateAsync().catch(() => null));
    await waitFor(() => expect(result.current.keep.isError).toBe(true));
    expect(asked.sent.map((each) => each.path)).toContain("/api/sketches");
    expect(result.current.fields.part_number).toBe("SQ-unmarked-1");
    expect(localStorage.length).toBe(1);
  });
});
