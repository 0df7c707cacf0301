import { renderAsking } from "@/testing/queries";
import { standInServer } from "@/testing/server";
import { screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import { SignInPage } from "./SignInPage";

const refused = (title: string) => ({ status: 401, body: { title, status: 401, detail: "Enter it." } });

async function signIn(title: string) {
  standInServer({
    "/api/opening": { body: { first: false } },
    "/api/session": refused(title),
    "/api/token": { body: { token: "t" } },
  });
  renderAsking(<SignInPage />);
  await userEvent.type(screen.getByLabelText("Name"), "wennick");
  await userEvent.type(screen.getByLabelText("Password"), "torchlight{Enter}");
  await screen.findByRole("alert");
}

describe("signing in", () => {
  it("asks for a code only of who has a second factor", async () => {
    await signIn("A code is needed");
    expect(screen.getByLabelText("Code")).toBe(document.activeElement);
  });

  it("asks nobody else for one", async () => {
    await signIn("Not signed in");
    expect(screen.queryByLabelText("Code")).toBeNull();
  });
});
