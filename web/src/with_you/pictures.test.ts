import { Blob } from "node:buffer";
import { entry } from "@/testing/jobs";
import { standInServer } from "@/testing/server";
import { describe, expect, it, vi } from "vitest";
import { keep, waiting } from "@/api/outbox";
import { sendAll } from "@/features/jobs/entries/sending";
import { keepPicture, keptPicture, shrunk } from "./pictures";

const ID = "33333333-3333-4333-8333-333333333333";
const PICTURE = `POST /api/jobs/j/pictures/${ID}`;
const nothing = () => Promise.resolve();

async function waitsWithItsEntry() {
  await keepPicture("wennick", "j", ID, new Blob(["1"], { type: "image/png" }) as never);
  await keep("j", "wennick", entry(`picture.${ID}`, { caption: "", of: "", marks: [] }));
}

describe("a picture that waits", () => {
  it("is sent before what speaks of it, once, and stays to be looked at", async () => {
    await waitsWithItsEntry();
    const server = standInServer({ [PICTURE]: { body: { id: ID } }, "POST /api/jobs/j/entries": "unreachable" });
    await sendAll("j", "wennick", nothing);
    server.paths["POST /api/jobs/j/entries"] = { body: { id: "j" } };
    await sendAll("j", "wennick", nothing);
    expect(server.sent.map((each) => each.path)).toEqual([
      `/api/jobs/j/pictures/${ID}`,
      "/api/jobs/j/entries",
      "/api/jobs/j/entries",
    ]);
    expect((await keptPicture("wennick", "j", ID))?.waits).toBe(false);
    expect(await waiting("wennick")).toEqual([]);
  });

  it("is refused with its reason where it is none, and nothing is said of it", async () => {
    await waitsWithItsEntry();
    const server = standInServer({ [PICTURE]: { status: 422, body: { title: "Wrong", detail: "expected JPEG" } } });
    const sent = await sendAll("j", "wennick", nothing);
    expect(sent.refused).toBe(1);
    expect((await waiting("wennick"))[0]?.refused?.detail).toBe("expected JPEG");
    expect(server.sent).toHaveLength(1);
  });

  it("is made smaller only where it is large, and sent as it is where it cannot be read", async () => {
    const small = new File(["x"], "a.png", { type: "image/png" });
    expect(await shrunk(small)).toBe(small);
    vi.stubGlobal("createImageBitmap", () => Promise.reject(new Error("no picture")));
    const large = new File([new Uint8Array(700_000)], "b.jpg", { type: "image/jpeg" });
    expect(await shrunk(large)).toBe(large);
  });
});
