import type { Schemas } from "@/api/client";
import { ASSUMPTION_NAMES } from "@/ui/assumptionNames";
import { ProblemNotice } from "@/ui/notices";
import { useCosts } from "../../api";
import type { StepProps } from "../../stepProps";
import { NumberField } from "../NumberField";

const NAMES: Record<string, string> = {
  ...ASSUMPTION_NAMES,
  price: "Trade price of the part",
  minutes: "Minutes of work",
  days: "Days until it is there",
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
            <NumberField
              key={name}
              label={NAMES[name] ?? name}
              hint={data.changed.includes(name) ? "changed here; empty it to go back" : undefined}
              value={value}
              least={0}
              disabled={job.closed}
              onSave={(number) => void put({ target: `cost.${name}`, after: number })}
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
