import { Button } from "@/ui/Button";
import { useState } from "react";
import type { Column, Draft } from "../api";

type Props = { draft: Draft; columns: Column[]; onChange: (columns: Column[]) => void };

/** What each column of a chart is: guessed from its heading, and put right here. */
export function ChartColumns({ draft, columns, onChange }: Props) {
  const [heading, setHeading] = useState("");
  const put = (index: number, column: Column) => onChange(columns.map((each, at) => (at === index ? column : each)));
  const take = (index: number, chosen: string) => {
    const column = columns[index];
    if (!column) return;
    const [role = "note", name = ""] = split(chosen);
    if (role !== "new") return put(index, { ...column, role: role as Column["role"], name });
    // the server makes the fact of the column’s cells
    put(index, { ...column, role: "fact", name: "" });
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
                  <option value="new">a new fact: {column.heading}</option>
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
