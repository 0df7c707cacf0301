import { keep, waiting } from "@/api/outbox";
import { entry, jobSheet } from "@/testing/jobs";
import { standInServer } from "@/testing/server";
import { describe, expect, it, vi } from "vitest";
import { aloneInTurn, sendAll } from "./sending";

const PATH = "POST /api/jobs/j/entries";
const WAITED = "POST /api/jobs/j/entries/waited";
const nothing = () => Promise.resolve();
const problem = (status: number) => ({ status, body: { title: "No", detail: `answer ${status}`, faults: [] } });

type Body = { entries: { after: string }[] };
/** A server that takes what waited up to the first whose value is refused, as the depot's does. */
const takesAllBut = (wrong: string, status = 400) => ({
  [WAITED]: (each: { body: unknown }) => {
    const { entries } = each.body as Body;
    const first = entries.findIndex(({ after }) => after === wrong);
    return { body: { taken: first < 0 ? entries.length : first, sheet: jobSheet({ id: "j" }) } };
  },
  [PATH]: (each: { body: unknown }) =>
    (each.body as { after: string }).after === wrong ? problem(status) : { body: jobSheet({ id: "j" }) },
});

async function made(...values: string[]) {
  for (const value of values) await keep("j", "wennick", entry("found.S1", value, { id: value }));
}
const left = async () => (await waiting("wennick", "j")).map((each) => [each.entry.after, each.refused?.status]);

describe("sending what waits", () => {
  it("sends in order, each with its maker, and drops what the server has", async () => {
    await made("00", "01");
    await keep("j", "corm", entry("found.S1", "11"));
    const server = standInServer(takesAllBut("none"));
    const shown: string[] = [];
    const sent = await sendAll("j", "wennick", async (job) => void shown.push(job.id));
    expect(sent.problem).toBeNull();
    expect(server.sent.map((each) => each.body)).toMatchObject([
      {
        entries: [
          { after: "00", maker: "wennick" },
          { after: "01", maker: "wennick" },
        ],
      },
    ]);
    expect([shown, await left()]).toEqual([["j"], []]);
    expect((await waiting("corm", "j")).length).toBe(1);
  });

  it.each([0, 401, 408, 429, 500, 503])("keeps everything where the answer is %i", async (status) => {
    await made("00", "01");
    standInServer({ [WAITED]: status === 0 ? "unreachable" : problem(status) });
    const sent = await sendAll("j", "wennick", nothing);
    expect(sent.problem).not.toBeNull();
    expect(await left()).toEqual([
      ["00", undefined],
      ["01", undefined],
    ]);
  });

  it("sends once more with a fresh form token, and keeps the entry where that is refused too", async () => {
    await made("00");
    const server = standInServer({
      [PATH]: (each) => (each.token === "token 2" ? { body: jobSheet() } : problem(403)),
    });
    expect((await sendAll("j", "wennick", nothing)).problem).toBeNull();
    expect(server.sent.map((each) => each.token)).toEqual(["token 1", "token 2"]);
    await made("01");
    server.paths[PATH] = problem(403);
    expect((await sendAll("j", "wennick", nothing)).problem?.status).toBe(403);
    expect(await left()).toEqual([["01", undefined]]);
  });

  it.each([400, 409, 413, 422])(
    "keeps an entry refused with %i, with the reason, and sends the next",
    async (status) => {
      await made("00", "01");
      standInServer(takesAllBut("00", status));
      const sent = await sendAll("j", "wennick", nothing);
      expect([sent.problem, sent.refused]).toEqual([null, 1]);
      expect(await left()).toEqual([["00", status]]);
      expect(await sendAll("j", "wennick", nothing)).toMatchObject({ refused: 0, problem: null });
      expect(await left()).toEqual([["00", status]]);
    },
  );

  it("sends a hundred in a few requests, one that is wrong alone, and those of another sheet by themselves", async () => {
    const values = [...Array(100).keys()].map(String);
    await made(...values);
    await keep("j.2", "wennick", entry("found.S1", "11"));
    const server = standInServer({ ...takesAllBut("70"), "POST /api/jobs/j.2/entries": { body: jobSheet() } });
    expect(await sendAll("j", "wennick", nothing)).toMatchObject({ problem: null, refused: 1 });
    expect(await left()).toEqual([["70", 400]]);
    const sizes = server.sent.map((each) => (each.body as Partial<Body>).entries?.length ?? 1);
    expect(sizes).toEqual([50, 50, 1, 29, 1]);
  });

  it("tries each by itself where the server takes none together", async () => {
    await made("00", "01");
    const server = standInServer({ ...takesAllBut("none"), [WAITED]: problem(413) });
    expect(await sendAll("j", "wennick", nothing)).toMatchObject({ problem: null, refused: 0 });
    expect(server.sent.map((each) => each.path.split("/").pop())).toEqual(["waited", "entries", "entries"]);
    expect(await left()).toEqual([]);
  });

  it("leaves it to the tab that sends already", async () => {
    let another = true;
    vi.stubGlobal("navigator", {
      locks: {
        request: async (_: string, __: unknown, work: (lock: object | null) => unknown) => work(another ? null : {}),
      },
    });
    expect(await aloneInTurn(async () => "first")).toBeNull();
    another = false;
    expect(await aloneInTurn(async () => "second")).toBe("second");
  });

  it("takes what one page asks for one after another, where a browser has no locks too", async () => {
    vi.stubGlobal("navigator", {});
    const order: string[] = [];
    let go: () => void = () => undefined;
    const first = aloneInTurn(async () => {
      order.push("first begins");
      await new Promise<void>((resolve) => (go = resolve));
      order.push("first ends");
      throw new Error("broke off");
    });
    const second = aloneInTurn(async () => {
      order.push("second");
      return "second";
    });
    await vi.waitFor(() => expect(order).toEqual(["first begins"]));
    go();
    await expect(first).rejects.toThrow("broke off");
    expect(await second).toBe("second");
    expect(order).toEqual(["first begins", "first ends", "second"]);
  });
});
