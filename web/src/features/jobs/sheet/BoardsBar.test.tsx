import type { Schemas } from "@/api/client";
import { jobSheet } from "@/testing/jobs";
import { cleanup, render, screen, within } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import { AddBoard } from "./AddBoard";
import { BoardsBar } from "./BoardsBar";

const went = vi.hoisted(() => vi.fn(() => Promise.resolve()));
vi.mock("@tanstack/react-router", () => ({
  Link: ({ children, params, ...rest }: { children: React.ReactNode; params: { id: string } }) => (
    <a href={`/jobs/${params.id}`} {...rest}>
      {children}
    </a>
  ),
  useNavigate: () => went,
}));

const job = jobSheet();
const line = (board: string, title: string, more: Partial<Schemas["SheetLine"]> = {}): Schemas["SheetLine"] => ({
  id: board === "1" ? job.id : `${job.id}.${board}`,
  board,
  title,
  why: "",
  original: null,
  replacement: null,
  step: "record",
  proved: false,
  ...more,
});
const boards = (more: Partial<Schemas["BoardsOfJob"]> = {}): Schemas["BoardsOfJob"] => ({
  sheets: [line("1", "Mixer board", { original: "QN7-0042" }), line("2", "Drive board", { step: "choose" })],
  next: "2",
  said: false,
  because: ["Mixer board drives Drive board (J1.4)"],
  ...more,
});
const put = vi.fn(() => Promise.resolve(true));

afterEach(() => {
  cleanup();
  put.mockClear();
  went.mockClear();
});

describe("the boards of a job", () => {
  it("are nothing where there is one", () => {
    const { container } = render(<BoardsBar job={jobSheet({ together: null })} put={put} />);
    expect(container.innerHTML).toBe("");
  });

  it("are a sheet each, with the way to the one that comes first", () => {
    render(<BoardsBar job={jobSheet({ together: boards() })} put={put} />);
    const [here, there] = within(screen.getByRole("navigation")).getAllByRole("link");
    expect(here?.getAttribute("aria-current")).toBe("page");
    expect(here?.textContent).toBe("Mixer boardQN7-0042 · Record");
    expect(there?.getAttribute("href")).toBe(`/jobs/${job.id}.2`);
    expect(screen.getByRole("link", { name: "Go on there" }).getAttribute("href")).toBe(`/jobs/${job.id}.2`);
    expect(screen.getByText(/comes first: choose/)).toBeTruthy();
  });

  it("are told no way on from the one in hand, nor in a closed job", () => {
    const { rerender } = render(<BoardsBar job={jobSheet({ together: boards({ next: "1" }) })} put={put} />);
    expect(screen.queryByRole("link", { name: "Go on there" })).toBeNull();
    rerender(<BoardsBar job={jobSheet({ together: boards(), closed: true })} put={put} />);
    expect(screen.queryByRole("link", { name: "Go on there" })).toBeNull();
    expect(screen.queryByRole("button")).toBeNull();
  });

  it("take another order by hand, and back", async () => {
    const { rerender } = render(<BoardsBar job={jobSheet({ together: boards() })} put={put} />);
    await userEvent.click(screen.getByRole("button", { name: "Drive board earlier" }));
    expect(put).toHaveBeenLastCalledWith({ target: "boards_order", after: ["2", "1"] });
    rerender(<BoardsBar job={jobSheet({ together: boards({ said: true }) })} put={put} />);
    await userEvent.click(screen.getByRole("button", { name: /Back to the order/ }));
    expect(put).toHaveBeenLastCalledWith({ target: "boards_order", after: null });
  });

  it("lose the last that came; on its own sheet one comes back to the first", async () => {
    render(<BoardsBar job={jobSheet({ id: `${job.id}.2`, together: boards() })} put={put} />);
    expect(screen.queryByRole("button", { name: /Take Mixer board out/ })).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: "Take Drive board out of this job" }));
    expect(put).toHaveBeenLastCalledWith({ target: "board.2", after: null });
    expect(went).toHaveBeenCalledWith({ to: "/jobs/$id", params: { id: job.id } });
  });
});

describe("another board", () => {
  it("comes with what it is called and why it goes too; the first one gets its name along", async () => {
    render(<AddBoard job={jobSheet({ together: null, board_names: {} })} put={put} />);
    const add = screen.getByRole("button", { name: "Add this board" });
    expect((add as HTMLButtonElement).disabled).toBe(true);
    await userEvent.type(screen.getByLabelText("What it is called"), "Display");
    await userEvent.type(screen.getByLabelText("The reason, where it is known"), "drowned along");
    await userEvent.click(add);
    expect(put.mock.calls).toEqual([
      [{ target: "board.1", after: { title: "Main board" } }],
      [{ target: "board.2", after: { title: "Display", why: "drowned along" } }],
    ]);
    expect((screen.getByLabelText("What it is called") as HTMLInputElement).value).toBe("");
  });

  it("is not offered beyond six, nor in a closed job", () => {
    const six = ["1", "2", "3", "4", "5", "6"].map((each) => line(each, `Board ${each}`));
    const { container, rerender } = render(
      <AddBoard job={jobSheet({ together: boards({ sheets: six }) })} put={put} />,
    );
    expect(container.innerHTML).toBe("");
    rerender(<AddBoard job={jobSheet({ closed: true })} put={put} />);
    expect(container.innerHTML).toBe("");
  });
});
