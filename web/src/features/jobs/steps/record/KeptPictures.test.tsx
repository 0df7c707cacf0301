import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { expect, it } from "vitest";
import type { Job } from "../../api";
import { KeptPictures } from "./KeptPictures";

const kept = (captions: string[]) =>
  ({
    id: "7",
    pictures: Object.fromEntries(captions.map((caption, index) => [`p${index}`, { caption, of: "", marks: [] }])),
  }) as unknown as Job;

it("shows nothing where no picture was kept", () => {
  const { container } = render(<KeptPictures job={kept([])} />);
  expect(container.innerHTML).toBe("");
});

it("brings a picture up large under its own words, and says how many more there are", async () => {
  render(<KeptPictures job={kept(["Bank and lamp", "", "Plug side", "Rear", "Cabinet"])} />);
  expect(screen.getAllByRole("button")).toHaveLength(4);
  expect(screen.getByText("and 1 more under Pictures")).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "Larger: Bank and lamp" }));
  expect(screen.getByRole("dialog", { name: "Bank and lamp" })).toBeTruthy();
  expect(screen.getByRole("img", { name: "Bank and lamp" }).getAttribute("src")).toBe("/api/jobs/7/pictures/p0");
});
