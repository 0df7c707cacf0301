import { renderAsking } from "@/testing/queries";
import { screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import type { Job } from "../../api";
import { Twin } from "./Twin";

const told = {
  positions: { SW1: "0111", R1: "6" },
  judged_on: "the record",
  proof: {
    verdict: "different",
    words: "Off register: 2 input changes.",
    offsets: [],
    told: ["At 0 s: Call begins."],
    endless: [],
    explored: 9,
    why: ["Closer by what they do: with R1 at 4 it takes 3 input changes, not 2."],
    counter_case: null,
  },
};
const get = vi.hoisted(() => vi.fn());
vi.mock("@/api/client", async (original) => ({ ...(await original<object>()), api: { GET: get } }));

describe("how a candidate would behave", () => {
  it("is worked out when somebody asks: by the nearest functions, and what comes closer", async () => {
    get.mockResolvedValue({ data: told, response: new Response() });
    renderAsking(<Twin job={{ id: "j", entry_count: 3 } as unknown as Job} partNumber="TVH-2" />);
    expect(get).not.toHaveBeenCalled();
    await userEvent.click(screen.getByText("How it would behave, and what comes closer"));
    expect(await screen.findByText("SW1 0111")).toBeTruthy();
    expect(screen.getByText(/judged on the record/)).toBeTruthy();
    expect(screen.getByText(/Closer by what they do/)).toBeTruthy();
  });
});
