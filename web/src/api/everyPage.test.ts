import { describe, expect, it, vi } from "vitest";
import { everyPage } from "./everyPage";

const of = (all: number[], size: number) => (page: number) =>
  Promise.resolve({ items: all.slice((page - 1) * size, page * size), total: all.length });

describe("a list that is short by its nature", () => {
  it("is read to its end, whatever a page holds", async () => {
    const all = Array.from({ length: 250 }, (_, at) => at);
    expect((await everyPage(of(all, 100))).items).toEqual(all);
  });

  it("asks once where everything is on one page, and stops where nothing comes any more", async () => {
    const read = vi.fn(of([1, 2], 100));
    expect((await everyPage(read)).items).toEqual([1, 2]);
    expect(read).toHaveBeenCalledTimes(1);
    const short = await everyPage((page) => Promise.resolve({ items: page === 1 ? [1] : [], total: 9 }));
    expect(short.items).toEqual([1]);
  });
});
