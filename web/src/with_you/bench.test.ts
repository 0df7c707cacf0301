import { standInServer } from "@/testing/server";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { bringToBench, playPair } from "./bench";
import * as cores from "./core";

const pair = (original: string) => ({ original, replacement: "B", found: null, plan: null });
const given = (original: string) => ({ pair: pair(original), scenario: { steps: [], until: 1 } });
const wanted = () => new AbortController().signal;
const PLAY = "POST /api/bench/play";
const files = (original: string) => ({
  "GET /api/families/oven/file": { body: "family" },
  [`GET /api/board-file/${original}`]: { body: original },
  "GET /api/board-file/B": { body: "B" },
  [PLAY]: { body: { until: 7 } },
});

beforeEach(() => {
  vi.spyOn(cores, "keepCore").mockResolvedValue();
  vi.spyOn(cores, "loadCore").mockReturnValue();
  vi.spyOn(cores.core, "putInPair").mockResolvedValue(null);
  vi.spyOn(cores.core, "playPair").mockResolvedValue([200, '{"until": 1}']);
});

describe("the pair on the bench", () => {
  it("is played by the server until the core has its boards, and then here", async () => {
    const server = standInServer(files("A"));
    expect((await playPair(given("A"), wanted())).until).toBe(7);
    await bringToBench(pair("A"), "oven");
    expect(cores.core.putInPair).toHaveBeenCalledWith('["A","B"]', '"family"', '"A"', '"B"');
    expect((await playPair(given("A"), wanted())).until).toBe(1);
    expect((await playPair(given("C"), wanted())).until).toBe(7);
    expect(server.sent.filter((each) => each.method === "POST")).toHaveLength(2);
  });

  it("is refused here with the same words, and not played where nobody waits for it any more", async () => {
    standInServer(files("D"));
    await bringToBench(pair("D"), "oven");
    const told = { title: "Wrong", detail: "breaks a rule", faults: [{ place: "until", expected: "more" }] };
    vi.mocked(cores.core.playPair).mockResolvedValueOnce([422, JSON.stringify(told)]);
    await expect(playPair(given("D"), wanted())).rejects.toMatchObject({ status: 422, ...told });
    vi.mocked(cores.core.playPair).mockClear();
    await expect(playPair(given("D"), AbortSignal.abort())).rejects.toThrow();
    expect(cores.core.playPair).not.toHaveBeenCalled();
  });

  it("goes on being played by the server where the core cannot be had", async () => {
    standInServer(files("E"));
    vi.mocked(cores.keepCore).mockRejectedValueOnce(new Error("none"));
    await bringToBench(pair("E"), "oven");
    expect((await playPair(given("E"), wanted())).until).toBe(7);
    await bringToBench(pair("E"), "oven"); // tried again
    expect((await playPair(given("E"), wanted())).until).toBe(1);
  });
});
