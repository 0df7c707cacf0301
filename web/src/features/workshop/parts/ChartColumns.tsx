import { Button } from "@/ui/Button";
import { useState } from "react";
import type { Changing, Column, Draft } from "../api";
import { idFrom } from "../words";

type Props = { draft: Draft; changing: Changing; columns: Column[]; onChange: (columns: Column[]) => void };

const NEW = { number: "a new fact, a number", flag: "a new fact, yes or no", text: "a new fact, a name" } as const;

/** What each column of a chart is: guessed from its heading, and put right here. */
export function ChartColumns({ draft, changing, columns, onChange }: Props) {
  const [heading, setHeading] = useState("");
  const put = (index: number, column: Column) => onChange(columns.map((each, at) => (at === index ? column : each)));
  const take = (index: number, chosen: string) => {
    const column = columns[index];
    if (!column) return;
    const [role = "note", name = ""] = split(chosen);
    if (role !== "new") return put(index, { ...column, role: role as Column["role"], name });
    const id = idFrom(
      column.heading,
      draft.facts.map((each) => each.id),
    );
    const kind = name === "number" ? { number: true } : name === "flag" ? { flag: true } : {};
    const after = { id, title: column.heading, ...kind };
    changing.change(
      { what: "place", body: { path: ["family", "facts", draft.facts.length], after } },
      draft.version,
      () => put(index, { ...column, role: "fact", name: id }),
    );
  };
  return (
    <details open={columns.some((each) => each.role === "note" && !/remark|note/i.test(each.heading))}>
      <summary className="min-h-11 py-2.5 text-sm">What the columns are</summary>
      <ul className="flex flex-wrap gap-x-5 gap-y-2 pb-2">
        {columns.map((column, index) => (
          <li key={index} className="flex flex-col gap-1">
            <label className="text-sm">
              <span className="block font-semibold">{column.heading}</span>
              <select
                className="min-h-11 border border-edge bg-raised px-2"
                value={joined(column.role, column.name)}
                onChange={(event) => take(index, event.target.value)}
              >
                <option value="note">a remark</option>
                <option value="use">parts to use</option>
                <optgroup label="A fact of the machine">
                  <option value="fact|original">the old board’s number</option>
                  {draft.facts.map((each) => (
                    <option key={each.id} value={joined("fact", each.id)}>
                      {each.title}
                    </option>
                  ))}
                  {Object.entries(NEW).map(([kind, words]) => (
                    <option key={kind} value={joined("new", kind)}>
                      {words}
                    </option>
                  ))}
                </optgroup>
                <optgroup label="What to set">
                  {draft.elements.flatMap((element) => [
                    <option key={element.id} value={joined("set", element.id)}>
                      {element.id}
                    </option>,
                    ...(element.points.length > 1
                      ? element.points.map((point) => (
                          <option key={point} value={joined("set", point)}>
                            {point}
                          </option>
                        ))
                      : []),
                  ])}
                </optgroup>
              </select>
            </label>
            <Button kind="quiet" className="text-sm" onClick={() => onChange(columns.filter((_, at) => at !== index))}>
              Take out {column.heading}
            </Button>
          </li>
        ))}
      </ul>
      <form
        className="flex flex-wrap items-end gap-3 pb-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (!heading.trim() || columns.some((each) => each.heading === heading.trim())) return;
          onChange([...columns, { heading: heading.trim(), role: "note", name: "" }]);
          setHeading("");
        }}
      >
        <label className="text-sm">
          <span className="block">Another column’s heading</span>
          <input
            className="min-h-11 border border-edge bg-raised px-2"
            maxLength={200}
            value={heading}
            onChange={(event) => setHeading(event.target.value)}
          />
        </label>
        <Button type="submit">Add the column</Button>
      </form>
    </details>
  );
}

const joined = (role: string, name: string) => (name ? `${role}|${name}` : role);
const split = (chosen: string) => chosen.split("|");
