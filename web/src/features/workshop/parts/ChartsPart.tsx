import { Button } from "@/ui/Button";
import { useState } from "react";
import { ChartTable } from "./ChartTable";
import { NewChart } from "./NewChart";
import { Source } from "./Source";
import type { PartProps } from "./types";

/** What leaflets say to set for a machine: their tables, as they are printed. */
export function ChartsPart({ draft, changing }: PartProps) {
  const [adding, setAdding] = useState(false);
  return (
    <section aria-label="Charts" className="flex flex-col gap-4">
      <p className="text-faint">
        Tables of a leaflet that say what to set for which machine. A job asks for the facts that pick a row.
      </p>
      {draft.charts.length > 0 && <Source draft={draft} changing={changing} part="charts" />}
      {draft.charts.map((chart, index) => (
        <ChartTable key={index} draft={draft} changing={changing} chart={chart} index={index} />
      ))}
      {adding || draft.charts.length === 0 ? (
        <NewChart draft={draft} changing={changing} onDone={() => setAdding(false)} />
      ) : (
        <Button className="self-start" onClick={() => setAdding(true)}>
          Another chart
        </Button>
      )}
    </section>
  );
}
