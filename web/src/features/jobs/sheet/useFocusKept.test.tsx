import { render, screen, waitFor } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { useState } from "react";
import { describe, expect, it } from "vitest";
import { useFocusKept } from "./useFocusKept";

function Sheet({ next = true }: { next?: boolean }) {
  const sheet = useFocusKept();
  const [held, setHeld] = useState(false);
  return (
    <div ref={sheet}>
      <h2>Make safe</h2>
      {next && <section aria-label="Next">Next: measure.</section>}
      {!held && <button onClick={() => setHeld(true)}>Locked off: confirmed</button>}
      <button>Take back</button>
    </div>
  );
}

describe("the focus in a job", () => {
  it("goes on to the next thing where the button that was pressed is gone", async () => {
    render(<Sheet />);
    screen.getByRole("button", { name: /confirmed/ }).focus();
    await userEvent.keyboard("{Enter}");
    await waitFor(() => expect(document.activeElement).toBe(screen.getByRole("region", { name: "Next" })));
  });

  it("goes to the step where nothing is next", async () => {
    render(<Sheet next={false} />);
    screen.getByRole("button", { name: /confirmed/ }).focus();
    await userEvent.keyboard("{Enter}");
    await waitFor(() => expect(document.activeElement).toBe(screen.getByRole("heading")));
  });

  it("stays where it is while that is there, and is not taken from somebody who left the sheet", async () => {
    render(<Sheet />);
    screen.getByRole("button", { name: "Take back" }).focus();
    await userEvent.click(screen.getByRole("button", { name: /confirmed/ }));
    screen.getByRole("button", { name: "Take back" }).focus();
    await Promise.resolve();
    expect(document.activeElement).toBe(screen.getByRole("button", { name: "Take back" }));
  });
});
