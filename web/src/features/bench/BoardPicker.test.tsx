import { renderAsking } from "@/testing/queries";
import { standInServer } from "@/testing/server";
import { screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { BoardPicker } from "./BoardPicker";

const line = (part_number: string, title: string) => ({ part_number, title, maker: "Tarvenholm" });
const found = { items: [line("TVH-2205", "Oven board"), line("TVH-2210-B", "Burner board")], total: 40 };

function shown(props: Partial<Parameters<typeof BoardPicker>[0]> = {}) {
  const onPick = vi.fn();
  standInServer({ "/api/boards": { body: found } });
  renderAsking(<BoardPicker side="original" value="" onPick={onPick} {...props} />);
  return onPick;
}

describe("a board for the bench", () => {
  it("is found by typing, taken by a touch, and says how many more there are", async () => {
    const onPick = shown();
    await userEvent.type(screen.getByLabelText("Find the original"), "22");
    await userEvent.click(await screen.findByRole("button", { name: /TVH-2210-B/ }));
    expect(onPick).toHaveBeenCalledWith("TVH-2210-B");
    expect(screen.getByText("and 38 more; type more of it")).toBeTruthy();
  });

  it("is the first one found on Enter", async () => {
    const onPick = shown();
    await screen.findByRole("button", { name: /TVH-2205/ });
    await userEvent.type(screen.getByLabelText("Find the original"), "2205{Enter}");
    expect(onPick).toHaveBeenCalledWith("TVH-2205");
  });

  it("stands as a mark once it is picked, and can be another one", async () => {
    shown({ value: "TVH-2205" });
    expect(screen.queryByRole("searchbox")).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: "Another board" }));
    expect(screen.getByRole("searchbox")).toBeTruthy();
  });

  it("waits for the original before the replacement is asked for", () => {
    shown({ side: "replacement", disabled: true });
    expect(screen.getByLabelText<HTMLInputElement>("Find the replacement").disabled).toBe(true);
    expect(screen.queryByRole("list")).toBeNull();
  });
});
