import { jobSheet } from "@/testing/jobs";
import { renderAsking } from "@/testing/queries";
import { standInServer } from "@/testing/server";
import { screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import type { Job } from "../api";
import { Nameplate } from "./Nameplate";

const place = (id: string, text: string, more = {}) => ({
  id,
  title: id,
  text,
  ok: true,
  meaning: "one burner",
  expected: "",
  perhaps: "",
  ...more,
});
const plate = (more = {}) => ({
  scheme: "tvh",
  maker: "Tarvenholm",
  title: "deck ovens",
  source: "leaflet 3",
  example: "DK2-1-04",
  ok: true,
  places: [place("model", "DK2")],
  left_over: "",
  says: [],
  ...more,
});

function shown(answers: { plates?: unknown; serial?: unknown }, parts: Partial<Job> = {}) {
  standInServer({ "/api/plates": { body: answers.plates ?? [] }, "/api/serial": { body: answers.serial } });
  const put = vi.fn();
  renderAsking(<Nameplate job={jobSheet(parts)} put={put} />);
  return put;
}
const number = () => screen.getByLabelText("Number on it");
const serial = () => screen.getByLabelText("Serial number of the machine");

describe("the machine's nameplate", () => {
  it("is read place by place, and kept with the scheme that it follows", async () => {
    const put = shown({ plates: [plate()] });
    await userEvent.type(number(), " DK2 ");
    expect(await screen.findByText(/one burner/)).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "Keep this number" }));
    expect(put).toHaveBeenCalledWith({ target: "plate.plate", after: { text: "DK2", scheme: "tvh" } });
  });

  it("says what was expected where a place is wrong, what it may be, and keeps it all the same", async () => {
    const wrong = place("fuel", "9", { ok: false, meaning: "", expected: "one of 1, 2", perhaps: "1" });
    const says = [{ words: "Made before 2001: the board stands upside down." }];
    const put = shown({ plates: [plate({ ok: false, places: [wrong], left_over: "XX", says })] });
    await userEvent.type(number(), "DK29XX");
    expect(await screen.findByText(/expected one of 1, 2/)).toBeTruthy();
    expect(screen.getByText(/Left over:/).textContent).toContain("XX");
    expect(screen.getByText(/stands upside down/)).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "It stands so on the plate: keep it" }));
    expect(put.mock.calls[0]?.[0].after).toEqual({ text: "DK29XX", scheme: "tvh" });
  });

  it("warns of a display, which may have come with another board", async () => {
    const put = shown({ plates: [plate()] });
    await userEvent.click(screen.getByText("from the display"));
    expect(screen.getByText(/may have come with a donor board/)).toBeTruthy();
    await userEvent.type(number(), "DK2");
    await userEvent.click(await screen.findByRole("button", { name: "Keep this number" }));
    expect(put.mock.calls[0]?.[0].target).toBe("plate.display");
  });

  it("reads the serial number back in groups, and keeps one that does not check with the reason", async () => {
    const put = shown({ serial: { ok: false, groups: ["0417", "22"], expected: "7 at the end" } });
    await userEvent.type(serial(), "041722");
    expect((await screen.findByText(/0417/)).textContent).toBe("0417\u200222");
    expect(screen.getByText("Expected 7 at the end.")).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "It stands so on the plate: keep it" }));
    expect(put).toHaveBeenCalledWith({ target: "serial", after: "041722", reason: "stands so on the plate" });
  });

  it("takes a number back, and changes nothing in a closed job", async () => {
    const plates = { plate: { text: "DK2", scheme: "tvh" } } as never;
    const put = shown({}, { plates });
    await userEvent.click(screen.getByRole("button", { name: "Take it back" }));
    expect(put).toHaveBeenCalledWith({ target: "plate.plate", after: null });
  });

  it("only shows the numbers of a closed job", () => {
    shown({}, { plates: { plate: { text: "DK2", scheme: "tvh" } } as never, serial: "0417", closed: true });
    expect(screen.getByText("0417")).toBeTruthy();
    expect(screen.queryByRole("textbox")).toBeNull();
  });
});
