import type { Entry } from "@/api/outbox";
import { element, jobSheet } from "@/testing/jobs";
import { renderAsking } from "@/testing/queries";
import { standInServer } from "@/testing/server";
import { fireEvent, screen, waitFor } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { Problem, type Schemas } from "@/api/client";
import type { Job } from "../../api";
import type { StepProps } from "../../stepProps";
import { PicturesPart } from "./PicturesPart";

const ID = "33333333-3333-4333-8333-333333333333";
const BOX = { left: 0, top: 0, width: 200, height: 100 } as DOMRect;
const PICTURE = new File(["x"], "board.png", { type: "image/png" });
const send = vi.hoisted(() => vi.fn());
// a page's file here is none that fetch can send
const store = vi.hoisted(() => vi.fn());
vi.mock("@/with_you/pictures", async (original) => ({ ...(await original()), sendPicture: send, keepPicture: store }));
vi.mock("@/api/ids", () => ({ newId: () => ID }));
const kept = (more = {}) => ({ caption: "", of: "", marks: [], ...more });

function part(job: Partial<Job> = {}, elements = [element()]) {
  const made: Partial<Entry>[] = [];
  const put = vi.fn(async (entry: Partial<Entry>) => void made.push(entry));
  const props = { job: jobSheet(job), put, record: {}, elements } as unknown as StepProps & {
    record: Schemas["RecordShown"];
    elements: typeof elements;
  };
  renderAsking(<PicturesPart {...props} />);
  return made;
}
/** A tap at shares of a picture that is 200 by 100 on the page. */
function tap(picture: HTMLElement, x: number, y: number) {
  const target = picture.parentElement as HTMLElement;
  target.getBoundingClientRect = () => BOX;
  fireEvent.click(target, { clientX: x * BOX.width, clientY: y * BOX.height });
}

describe("pictures of a job", () => {
  it("says that there are none yet, and has one wait on the device before it is sent with its entry", async () => {
    const made = part();
    expect(screen.getByText(/No pictures yet/)).toBeTruthy();
    fireEvent.change(screen.getByLabelText("Add pictures"), { target: { files: [PICTURE] } });
    await waitFor(() => expect(made).toHaveLength(1));
    expect(made).toEqual([{ target: `picture.${ID}`, after: kept() }]);
    expect(store).toHaveBeenCalledWith("", jobSheet().id, ID, PICTURE);
    expect(send).not.toHaveBeenCalled();
  });

  it("is sent at once where the device has no room, and says why it was refused", async () => {
    store.mockRejectedValueOnce(new DOMException("full", "QuotaExceededError"));
    send.mockRejectedValueOnce(new Problem(422, "Wrong", "expected JPEG, PNG or WebP"));
    const made = part();
    fireEvent.change(screen.getByLabelText("Add pictures"), { target: { files: [PICTURE] } });
    expect(await screen.findByText(/expected JPEG, PNG or WebP/)).toBeTruthy();
    expect(made).toEqual([]);
  });

  it("takes a mark where it was tapped, with its words, and removes one", async () => {
    const made = part({ pictures: { [ID]: kept({ marks: [{ x: 0.1, y: 0.1, text: "burnt" }] }) } as never });
    tap(screen.getByRole("img"), 0.5, 0.25);
    await userEvent.type(screen.getByLabelText("Mark 2: what is there"), "cracked corner");
    await userEvent.click(screen.getByRole("button", { name: "Keep the mark" }));
    await userEvent.click(screen.getByRole("button", { name: "Remove mark 1" }));
    expect(made.map((each) => (each.after as { marks: unknown[] }).marks)).toEqual([
      [
        { x: 0.1, y: 0.1, text: "burnt" },
        { x: 0.5, y: 0.25, text: "cracked corner" },
      ],
      [],
    ]);
  });

  it("lets a mark be thought better of, and is only looked at once the job is closed", async () => {
    const made = part({ pictures: { [ID]: kept({ caption: "S1 in the torch" }) } as never });
    tap(screen.getByRole("img", { name: "S1 in the torch" }), 0.5, 0.5);
    await userEvent.click(screen.getByRole("button", { name: "No mark" }));
    expect(screen.queryByLabelText(/what is there/)).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: "Leave it out" }));
    expect(made).toEqual([{ target: `picture.${ID}`, after: null }]);
  });

  it("changes nothing in a closed job", () => {
    part({ closed: true, pictures: { [ID]: kept() } as never });
    tap(screen.getByRole("img"), 0.5, 0.5);
    expect(screen.queryByLabelText(/what is there/)).toBeNull();
    expect(screen.queryByText("Add pictures")).toBeNull();
  });
});

describe("an element read from a picture", () => {
  const path = `/api/jobs/${jobSheet().id}/pictures/${ID}/bank`;
  const seen = (written: string) => ({
    body: { written, sliders: [...written].map((mark) => ({ mark, confidence: 0.9 })), picture: "data:," },
  });
  const pictures = { [ID]: kept() } as never;
  const CORNERS: [number, number][] = [
    [0.1, 0.2],
    [0.9, 0.2],
    [0.9, 0.8],
    [0.1, 0.8],
  ];

  it("asks for four corners, shows what was seen, and takes it as a person left it", async () => {
    const { sent } = standInServer({ [path]: seen("0?1") });
    const made = part({ pictures });
    await userEvent.click(screen.getByRole("button", { name: "Read S1 from it" }));
    expect(screen.getByText(/Tap the upper left corner of the field of slots/)).toBeTruthy();
    for (const [x, y] of CORNERS) tap(screen.getByAltText("The picture"), x, y);
    expect(await screen.findByText(/1: 0 \(90 %\), 2: cannot tell/)).toBeTruthy();
    expect(sent.at(-1)?.body).toEqual({
      element: "S1",
      corners: CORNERS.map(([x, y]) => ({ x, y })),
      sliders: "light",
    });
    await userEvent.click(screen.getByRole("button", { name: "S1.2 unreadable" }));
    await userEvent.click(screen.getByRole("button", { name: "I looked: take it" }));
    expect(made).toEqual([{ target: "found.S1", after: "001", read_how: "from a picture" }]);
  });

  it("speaks of windows and digits where the element is a row of thumbwheels, and asks again when the ink is another", async () => {
    const { sent } = standInServer({ [path]: seen("47") });
    const wheels = element({
      id: "W1",
      kind: "thumbwheel",
      points: ["W1.1", "W1.2"],
      values: [..."0123456789"],
      contacts: [],
    });
    part({ pictures }, [element(), wheels]);
    await userEvent.click(screen.getByRole("button", { name: "Read S1, W1 from it" }));
    await userEvent.selectOptions(screen.getByLabelText("Element"), "W1");
    expect(screen.getByText(/the row of windows, upright/)).toBeTruthy();
    for (const [x, y] of CORNERS) tap(screen.getByAltText("The picture"), x, y);
    expect(await screen.findByText(/Look at every digit before you take it/)).toBeTruthy();
    await userEvent.click(screen.getByText("Dark digits"));
    await waitFor(() =>
      expect(sent.map((each) => (each.body as { sliders: string }).sliders)).toEqual(["light", "dark"]),
    );
  });

  it("starts again where the corners made no field", async () => {
    standInServer({ [path]: { status: 422, body: { title: "Wrong", detail: "Set the four corners again." } } });
    part({ pictures });
    await userEvent.click(screen.getByRole("button", { name: "Read S1 from it" }));
    for (const [x, y] of [...CORNERS].reverse()) tap(screen.getByAltText("The picture"), x, y);
    expect(await screen.findByText(/Set the four corners again\./)).toBeTruthy();
    expect(screen.getByText(/Tap the upper left corner/)).toBeTruthy();
  });
});
