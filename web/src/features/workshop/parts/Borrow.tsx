import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { useState } from "react";
import { useSiblings, type Changing, type Draft } from "../api";

type Props = { draft: Draft; changing: Changing; part: "functions" | "connectors" | "behaviour"; words: string };

/** Take a part over from another board of the same kind: nothing is entered twice. */
export function Borrow({ draft, changing, part, words }: Props) {
  const [search, setSearch] = useState<string | null>(null);
  const found = useSiblings(search ?? "", draft.family, search !== null);
  if (search === null) return <Button onClick={() => setSearch("")}>{words}</Button>;
  const others = found.data?.items.filter((each) => each.part_number !== draft.part_number) ?? [];
  return (
    <section aria-label={words} className="flex flex-col gap-2 border-l-4 border-edge pl-3">
      <div className="flex flex-wrap items-end gap-3">
        <div className="w-64">
          <TextField
            label={words}
            type="search"
            className="font-mono"
            spellCheck={false}
            value={search}
            maxLength={80}
            onChange={(event) => setSearch(event.target.value)}
          />
        </div>
        <Button kind="quiet" onClick={() => setSearch(null)}>
          Leave it
        </Button>
      </div>
      {found.data && others.length === 0 && <p>No other board of this kind of machine is in the catalogue.</p>}
      <ul className="flex flex-wrap gap-2" aria-label="Other boards">
        {others.map((each) => (
          <li key={each.part_number}>
            <Button
              onClick={() => {
                changing.change({ what: "borrow", body: { part, part_number: each.part_number } });
                setSearch(null);
              }}
            >
              <span className="font-mono">{each.part_number}</span>
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
