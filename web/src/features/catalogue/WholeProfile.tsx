import type { Schemas } from "@/api/client";
import { Part } from "@/ui/Part";
import { chartTables, plugTables, sectionsOf, type Table } from "./profileLines";

type Props = {
  document: Record<string, unknown>;
  charts: Schemas["ChartShown"][];
  titles: Record<string, string>;
};

/** Everything else that a profile holds, so that somebody can hold it against the leaflet. */
export function WholeProfile({ document, charts: printed, titles }: Props) {
  const charts = chartTables(printed);
  const plugs = plugTables(document, titles);
  const sections = sectionsOf(document, titles);
  if (charts.length + plugs.length + sections.length === 0) return null;
  return (
    <section className="flex flex-col">
      <h2>The rest of its profile</h2>
      {charts.length > 0 && (
        <Part title="Charts" status={`${charts.length}`}>
          {charts.map((each) => (
            <Lines key={each.title} table={each} />
          ))}
        </Part>
      )}
      {plugs.length > 0 && (
        <Part title="Plugs and pins" status={`${plugs.length} plugs`}>
          {plugs.map((each) => (
            <Lines key={each.title} table={each} />
          ))}
        </Part>
      )}
      {sections.map(({ title, lines }) => (
        <Part key={title} title={title} status={lines.length > 1 ? `${lines.length}` : ""}>
          <ul className="list-disc pl-5">
            {lines.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </Part>
      ))}
    </section>
  );
}

function Lines({ table }: { table: Table }) {
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label={table.title}>
      <table className="w-full text-left">
        <caption className="text-left font-semibold">{table.title}</caption>
        <thead>
          <tr className="text-sm text-faint">
            {table.headings.map((each, index) => (
              <th key={index} scope="col" className="py-1.5 pr-3 font-normal">
                {each}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {table.rows.map((row, index) => (
            <tr key={index} className="border-t border-rule">
              {row.map((cell, column) => (
                <td key={column} className="py-1.5 pr-3 font-mono">
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
