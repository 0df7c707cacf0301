import { Blob } from "node:buffer";
import { entry } from "@/testing/jobs";
import { standInServer } from "@/testing/server";
import { describe, expect, it, vi } from "vitest";
import { keep, waiting } from "@/api/outbox";
import { sendAll } from "@/features/jobs/entries/sending";
import { answerHere } from "./elsewhere";
import { setPersonHere } from "./person";
import { forgetPerson } from "./forgetting";
import { leaveBehind } from "./taking";
import { keepPicture, keptPicture } from "./pictures";
import { shrunk } from "./shrinking";

const JOB = "11111111-1111-4111-8111-111111111111";
const ID = "33333333-3333-4333-8333-333333333333";
const PICTURE = `POST /api/jobs/${JOB}/pictures/${ID}`;
const CHUNKS = `/api/jobs/${JOB}/pictures/${ID}/chunks`;
const nothing = () => Promise.resolve();

async function waitsWithItsEntry() {
  await keepPicture("wennick", JOB, ID, new Blob(["1"], { type: "image/png" }) as never);
  await keep(JOB, "wennick", entry(`picture.${ID}`, { caption: "", of: "", marks: [] }));
}

describe("a picture that waits", () => {
  it("is sent before what speaks of it, once, and stays to be looked at", async () => {
    await waitsWithItsEntry();
    const server = standInServer({ [PICTURE]: { body: { id: ID } }, [`POST /api/jobs/${JOB}/entries`]: "unreachable" });
    await sendAll(JOB, "wennick", nothing);
    server.paths[`POST /api/jobs/${JOB}/entries`] = { body: { id: JOB } };
    await sendAll(JOB, "wennick", nothing);
    expect(server.sent.map((each) => each.path)).toEqual([
      `/api/jobs/${JOB}/pictures/${ID}`,
      `/api/jobs/${JOB}/entries`,
      `/api/jobs/${JOB}/entries`,
    ]);
    expect((await keptPicture("wennick", JOB, ID))?.waits).toBe(false);
    expect(await waiting("wennick")).toEqual([]);
  });

  it("still waits where the depot was not reached: what is on the device is no answer of the depot", async () => {
    await setPersonHere("wennick");
    answerHere();
    await waitsWithItsEntry();
    standInServer({ [PICTURE]: "unreachable" });
    await sendAll(JOB, "wennick", nothing);
    expect((await keptPicture("wennick", JOB, ID))?.waits).toBe(true);
    expect(await waiting("wennick")).toHaveLength(1);
  });

  it("is not left behind with its job, nor by signing out, unless what waits is forgotten too", async () => {
    await waitsWithItsEntry();
    await leaveBehind("wennick", JOB);
    await forgetPerson("wennick", false);
    expect((await keptPicture("wennick", JOB, ID))?.waits).toBe(true);
    await forgetPerson("wennick", true);
    expect(await keptPicture("wennick", JOB, ID)).toBeUndefined();
  });

  it("is refused with its reason where it is none, and nothing is said of it", async () => {
    await waitsWithItsEntry();
    const server = standInServer({ [PICTURE]: { status: 422, body: { title: "Wrong", detail: "expected JPEG" } } });
    const sent = await sendAll(JOB, "wennick", nothing);
    expect(sent.refused).toBe(1);
    expect((await waiting("wennick"))[0]?.refused?.detail).toBe("expected JPEG");
    expect(server.sent).toHaveLength(1);
  });

  it("that is large goes in chunks, and after a cut from where it was", async () => {
    const file = new Blob([new Uint8Array(600_000)], { type: "image/jpeg" });
    await keepPicture("wennick", JOB, ID, file as never);
    await keep(JOB, "wennick", entry(`picture.${ID}`, { caption: "", of: "", marks: [] }));
    let there = 0;
    let cut = true;
    const told = () => ({ body: {}, headers: { "Upload-Offset": String(there) } });
    const server = standInServer({
      [`POST /api/jobs/${JOB}/entries`]: { body: { id: JOB } },
      [`POST ${CHUNKS}`]: { body: {} },
      [`HEAD ${CHUNKS}`]: told,
      [`PATCH ${CHUNKS}`]: () => {
        if (cut && there > 0) return "unreachable";
        there = Math.min(there + 256_000, 600_000);
        return told();
      },
    });
    expect((await sendAll(JOB, "wennick", nothing)).problem?.offline).toBe(true);
    expect((await keptPicture("wennick", JOB, ID))?.waits).toBe(true);
    cut = false;
    expect((await sendAll(JOB, "wennick", nothing)).problem).toBeNull();
    const patches = server.sent.filter((each) => each.method === "PATCH");
    expect(patches).toHaveLength(4); // one of them was cut
    expect(there).toBe(600_000);
    expect((await keptPicture("wennick", JOB, ID))?.waits).toBe(false);
  });

  it("is made smaller only where it is large, and sent as it is where it cannot be read", async () => {
    const small = new File(["x"], "a.png", { type: "image/png" });
    expect(await shrunk(small)).toBe(small);
    vi.stubGlobal("createImageBitmap", () => Promise.reject(new Error("no picture")));
    const large = new File([new Uint8Array(700_000)], "b.jpg", { type: "image/jpeg" });
    expect(await shrunk(large)).toBe(large);
  });
});
