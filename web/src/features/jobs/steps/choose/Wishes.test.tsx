import { jobSheet } from "@/testing/jobs";
import { renderAsking } from "@/testing/queries";
import { standInServer } from "@/testing/server";
import { screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { Wishes } from "./Wishes";

const functions = [
  { id: "delay", title: "Fan delay", type: "duration" },
  { id: "buzzer", title: "Buzzer", type: "flag" },
  { id: "mode", title: "Mode", type: "choice", choices: ["eco", "full"] },
];

async function shown(parts: Parameters<typeof jobSheet>[0] = {}) {
  standInServer({ "/api/families/oven": { body: { document: { functions } } } });
  const put = vi.fn();
  renderAsking(<Wishes job={jobSheet({ family: "oven", ...parts })} put={put} />);
  await userEvent.click(screen.getByText("Something is wanted otherwise than before"));
  return put;
}
const wish = async (title: string) =>
  userEvent.selectOptions(
    screen.getByRole("combobox", { name: "What should be otherwise" }),
    await screen.findByRole("option", { name: title }),
  );
const keep = () => screen.getByRole<HTMLButtonElement>("button", { name: "It is wanted" });

describe("what the owner wants otherwise", () => {
  it.each([
    ["Fan delay", "2,5", { target: "wish.delay", after: 2.5 }],
    ["Buzzer", "no", { target: "wish.buzzer", after: false }],
    ["Mode", "eco", { target: "wish.mode", after: "eco" }],
  ])("is kept as its kind says: %s", async (title, text, change) => {
    const put = await shown();
    await wish(title);
    const field = screen.getByLabelText(/^Wanted/);
    if (field.tagName === "SELECT") await userEvent.selectOptions(field, text);
    else await userEvent.type(field, text);
    await userEvent.click(keep());
    expect(put.mock.calls).toEqual([[change]]);
  });

  it("is not kept where a number is needed and none is given, and says so", async () => {
    const put = await shown();
    await wish("Fan delay");
    await userEvent.type(screen.getByLabelText("Wanted, in s"), "half a minute");
    expect(keep().disabled).toBe(true);
    expect(screen.getByText("A number is needed here.")).toBeTruthy();
    expect(put).not.toHaveBeenCalled();
  });

  it("is no longer wanted when somebody says so", async () => {
    const put = await shown({ wishes: { buzzer: true } });
    await userEvent.click(screen.getByRole("button", { name: "No longer wanted" }));
    expect(put.mock.calls).toEqual([[{ target: "wish.buzzer", after: null }]]);
  });
});
