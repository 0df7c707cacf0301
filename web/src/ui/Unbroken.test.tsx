import { standInServer } from "@/testing/server";
import { render, screen, waitFor } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { Unbroken } from "./Unbroken";

describe("a part of a page that breaks", () => {
  it("leaves the rest as it is, tells the depot, and can be tried again", async () => {
    vi.stubGlobal("VERSION", "0.0.0");
    vi.spyOn(console, "error").mockImplementation(() => undefined);
    const server = standInServer({ "POST /api/faults": { status: 204 } });
    let broken = true;
    const Part = () => {
      if (broken) throw new Error("x is undefined");
      return <p>whole again</p>;
    };
    render(
      <>
        <p>hold points</p>
        <Unbroken place="Fit">
          <Part />
        </Unbroken>
      </>,
    );
    expect(screen.getByText("hold points")).toBeTruthy();
    expect(screen.getByRole("alert").textContent).toContain("Fit cannot be shown.");
    await waitFor(() =>
      expect(server.sent.map((each) => each.body)).toMatchObject([{ place: "Fit", message: "Error: x is undefined" }]),
    );
    broken = false;
    await userEvent.click(screen.getByRole("button", { name: "Try again" }));
    expect(screen.getByText("whole again")).toBeTruthy();
  });
});
