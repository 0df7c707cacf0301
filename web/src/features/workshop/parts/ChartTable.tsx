import { Button } from "@/ui/Button";
import { CellTable } from "@/ui/CellTable";
import type { Schemas } from "@/api/client";
import { saidAt, type Changing, type Column, type Draft } from "../api";
import { ChartColumns } from "./ChartColumns";

type Props = { draft: Draft; changing: Changing; chart: Schemas["ChartShown"]; index: number };

/** A chart as its leaflet prints it, cell by cell, with what each column is. */
export function ChartTable({ draft, changing, chart, index }: Props) {
  const put = (columns: Column[], rows: string[][], seen?: number) =>
    changing.change({ what: "chart", body: { index, title: chart.title, columns, rows } }, seen);
  const place = `charts[${index}]`;
  const wrong = (row: number, column: number) => {
    const { role, name } = chart.columns[column] ?? { role: "note", name: "" };
    if (role !== "fact" && role !== "set") return "";
    const under = `${place}.rows[${row}].${role === "fact" ? "if" : "set"}`;
    return [name, elementOf(name)].map((each) => saidAt(draft, `${under}.${each}`)).find(Boolean) ?? "";
  };
  const rest = [place, `${place}.rows`].map((each) => saidAt(draft, each)).filter(Boolean);
  return (
    <section aria-label={chart.title || chart.id} className="flex flex-col gap-2">
      <h3>{chart.title || chart.id}</h3>
      <ChartColumns
        draft={draft}
        columns={chart.columns}
        onChange={(columns) => put(columns, moved(chart.columns, columns, chart.rows))}
      />
      <CellTable
        label={`Rows of ${chart.title || chart.id}`}
        headings={chart.columns.map((each) => each.heading)}
        rows={chart.rows}
        grows
        cellLabel={(row, column) => `${chart.columns[column]?.heading ?? ""}, row ${row + 1}`}
        wrong={wrong}
        wrongRow={(row) =>
          [`${place}.rows[${row}]`, `${place}.rows[${row}].set`]
            .map((each) => saidAt(draft, each))
            .filter(Boolean)
            .join("; ")
        }
        options={(column) => optionsOf(draft, chart.columns[column])}
        version={draft.version}
        onChange={(rows, seen) => put(chart.columns, rows, seen)}
      />
      {rest.map((each) => (
        <p key={each} role="alert" className="font-semibold">
          {each}
        </p>
      ))}
      <Button kind="quiet" className="self-start" onClick={() => put([], [])}>
        Take this chart out
      </Button>
    </section>
  );
}

/** Rows for columns that were added or taken out; each cell goes along with its heading. */
function moved(before: Column[], after: Column[], rows: string[][]): string[][] {
  const from = after.map((column) => before.findIndex((each) => each.heading === column.heading));
  return rows.map((row) => from.map((index) => (index < 0 ? "" : (row[index] ?? ""))));
}

const elementOf = (name: string) => name.replace(/\.\d+$/, "");

function optionsOf(draft: Draft, column: Column | undefined): string[] {
  if (column?.role === "fact") {
    const fact = draft.facts.find((each) => each.id === column.name);
    return fact?.kind === "flag" ? ["yes", "no"] : (fact?.choices ?? []);
  }
  if (column?.role !== "set") return [];
  const element = draft.elements.find((each) => each.id === column.name);
  return element && !["dip", "code", "thumbwheel", "parameter"].includes(element.kind)
    ? element.values.map(String)
    : [];
}
