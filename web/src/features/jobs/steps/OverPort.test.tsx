import { reach } from "@/api/reach";
import { standInServer } from "@/testing/server";
import { act, render, screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { OverPort } from "./OverPort";

const ADDRESS = "/api/anything";
const ask = () =>
  act(async () => {
    await reach(new Request(new URL(ADDRESS, location.origin), { method: "POST" })).catch(() => undefined);
  });

it("offers the port where the depot can be asked, by eye where it cannot, and the port again", async () => {
  const server = standInServer({ [ADDRESS]: {} });
  render(
    <OverPort instead="Read them by eye.">
      <button>Read the port</button>
    </OverPort>,
  );
  expect(screen.getByRole("button", { name: "Read the port" })).toBeTruthy();
  server.paths[ADDRESS] = "unreachable";
  await ask();
  expect(screen.getByRole("note").textContent).toContain("Read them by eye.");
  expect(screen.queryByRole("button")).toBeNull();
  server.paths[ADDRESS] = {};
  await ask();
  expect(screen.getByRole("button", { name: "Read the port" })).toBeTruthy();
});
