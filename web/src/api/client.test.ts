import { standInServer } from "@/testing/server";
import { describe, expect, it } from "vitest";
import { Problem, answer, api, forgetToken } from "./client";

const problem = async (call: Promise<unknown>) => {
  try {
    await call;
  } catch (error) {
    if (error instanceof Problem) return error;
  }
  throw new Error("expected a problem");
};

describe("the API client", () => {
  it("gives the data of an answer", async () => {
    standInServer({ "/api/session": { body: { name: "Wennick Tarl" } } });
    expect(await answer(api.GET("/api/session"))).toEqual({ name: "Wennick Tarl" });
  });

  it("tells a problem with its places", async () => {
    const faults = [{ place: "positions.S1", expected: "expected 6 places" }];
    standInServer({ "/api/session": { status: 422, body: { title: "Not possible", detail: "Six places.", faults } } });
    const found = await problem(answer(api.GET("/api/session")));
    expect([found.status, found.title, found.detail, found.faults]).toEqual([
      422,
      "Not possible",
      "Six places.",
      faults,
    ]);
    expect(found.offline).toBe(false);
  });

  it.each([502, 503, 504])("takes a %i from between for no connection", async (status) => {
    standInServer({ "/api/session": { status } });
    expect((await problem(answer(api.GET("/api/session")))).offline).toBe(true);
  });

  it("tells that there is no connection", async () => {
    standInServer({ "/api/session": "unreachable" });
    expect((await problem(answer(api.GET("/api/session")))).offline).toBe(true);
  });

  it("asks again by the version that it has, and takes what stands yet from what it was told", async () => {
    const server = standInServer({
      "/api/session": ({ had }) => (had === '"7"' ? { status: 304 } : { body: { name: "Wennick Tarl" }, tag: '"7"' }),
    });
    const asked = () => answer(api.GET("/api/session"));
    expect([await asked(), await asked()]).toEqual([{ name: "Wennick Tarl" }, { name: "Wennick Tarl" }]);
    // somebody else signs in: nothing is known any more
    forgetToken();
    await asked();
    expect(server.sent.map((each) => each.had)).toEqual([null, '"7"', null]);
    server.paths["/api/session"] = { body: { name: "Corm" }, tag: '"8"' };
    expect(await asked()).toEqual({ name: "Corm" });
  });

  it("sends one form token with every change, and a new one after a sign-in", async () => {
    const server = standInServer({ "/api/session": {} });
    await answer(api.DELETE("/api/session"));
    await answer(api.DELETE("/api/session"));
    forgetToken();
    await answer(api.DELETE("/api/session"));
    await answer(api.GET("/api/session"));
    expect(server.sent.map((each) => each.token)).toEqual(["token 1", "token 1", "token 2", null]);
  });
});
