type Page<Item> = { items: Item[]; total: number };

const MOST_PAGES = 20;

/** All of a list that is short by its nature (kinds, makers), page after page; no more than `MOST_PAGES` of them. */
export async function everyPage<Item>(read: (page: number) => Promise<Page<Item>>): Promise<Page<Item>> {
  const first = await read(1);
  const items = [...first.items];
  for (let page = 2; items.length < first.total && page <= MOST_PAGES; page++) {
    const next = await read(page);
    if (next.items.length === 0) break;
    items.push(...next.items);
  }
  return { items, total: first.total };
}
