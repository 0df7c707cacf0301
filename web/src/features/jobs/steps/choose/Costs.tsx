import type { Schemas } from "@/api/client";
import { ProblemNotice } from "@/ui/notices";
import { useCosts } from "../../api";
import type { StepProps } from "../../JobPage";
import { DraftField } from "../DraftField";

const NAMES: Record<string, string> = {
  price: "Trade price of the part",
  minutes: "Minutes of work",
  days: "Days until it is there",
  trade_factor: "Our factor on the trade price",
  retail_factor: "The service’s factor on it",
  tax_percent: "Tax, in %",
  hour_rate: "Our hour",
  travel: "Our way there",
  lost_per_hour: "Lost production an hour",
  open_hours_per_day: "Hours of production a day",
  service_callout: "The service’s call-out",
  service_hours: "The service’s hours",
  service_hour_rate: "The service’s hour",
  service_days: "Days until the service comes",
};

/** A plain sum with its assumptions, each of which can be changed here. */
export function Costs({ job, put, partNumber }: StepProps & { partNumber: string }) {
  const costs = useCosts(job, partNumber);
  if (!costs.data) return <ProblemNotice problem={costs.error} />;
  const data = costs.data;
  return (
    <div className="flex flex-col gap-4">
      <div className="grid gap-5 sm:grid-cols-2">
        <Sum title="Our own repair" lines={data.own} total={data.own_total} />
        <Sum title="Calling a service" lines={data.service} total={data.service_total} />
      </div>
      <p className="font-semibold">
        {data.saved >= 0 ? `Saves ${data.saved.toFixed(2)}` : `Costs ${(-data.saved).toFixed(2)} more`}, by these
        assumptions.
      </p>
      <details>
        <summary className="min-h-11 py-2">The assumptions (price: {data.price_from})</summary>
        <div className="grid gap-3 sm:grid-cols-2">
          {Object.entries(data.assumptions).map(([name, value]) => (
            <DraftField
              key={name}
              label={NAMES[name] ?? name}
              hint={data.changed.includes(name) ? "changed here; empty it to go back" : undefined}
              inputMode="decimal"
              value={String(value)}
              disabled={job.closed}
              onSave={(text) => {
                const number = Number(text.replace(",", "."));
                if (text === "") void put({ target: `cost.${name}`, after: null });
                else if (Number.isFinite(number)) void put({ target: `cost.${name}`, after: number });
              }}
            />
          ))}
        </div>
      </details>
    </div>
  );
}

function Sum({ title, lines, total }: { title: string; lines: Schemas["CostLine"][]; total: number }) {
  return (
    <table className="border-collapse">
      <caption className="text-left font-semibold">{title}</caption>
      <tbody>
        {lines.map((line) => (
          <tr key={line.id} className="border-b border-rule align-top">
            <td className="py-1 pr-3">{line.words}</td>
            <td className="py-1 text-right font-mono">{line.amount.toFixed(2)}</td>
          </tr>
        ))}
        <tr className="border-t-2 border-text font-semibold">
          <td className="py-1">In all</td>
          <td className="py-1 text-right font-mono">{total.toFixed(2)}</td>
        </tr>
      </tbody>
    </table>
  );
}
