import type { Schemas } from "@/api/client";
import { ASSUMPTION_NAMES } from "@/ui/assumptionNames";
import { moneyText } from "@/ui/money";
import type { StepProps } from "../../stepProps";
import { NumberField } from "../NumberField";

const FIELDS: [string, string][] = [
  ["minutes", "Minutes of work"],
  ["travel_minutes", "Minutes on the way"],
  ["parts_trade", "Parts, trade price"],
  ["parts_retail", "Parts, retail price"],
  ["other", "Anything else"],
];

/** Time, parts and cost as they were, and the difference to calling another service, with what that assumes. */
export function Spent({ job, put, spent }: StepProps & { spent: Schemas["SpentShown"] }) {
  const rows = spent.own.map((line, index) => ({ line, other: spent.service[index] }));
  return (
    <>
      <div className="grid gap-3 sm:grid-cols-3">
        {FIELDS.map(([name, label]) => (
          <NumberField
            key={name}
            label={label}
            value={job.spent[name]}
            disabled={job.closed}
            onSave={(value) => void put({ target: `spent.${name}`, after: value })}
          />
        ))}
      </div>
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Cost, line by line">
        <table className="w-full max-w-2xl text-left">
          <thead>
            <tr className="border-b border-text">
              <th scope="col">This repair</th>
              <th scope="col" className="text-right">
                {spent.not_entered.length ? "estimated" : "as entered"}
              </th>
              <th scope="col" className="pl-4">
                Another service
              </th>
              <th scope="col" className="text-right">
                {spent.not_entered.length ? "estimated" : "by the depot’s figures"}
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ line, other }) => (
              <tr key={line.id} className="border-b border-rule">
                <td className="py-1">{line.words}</td>
                <td className="text-right font-mono">{moneyText(line.amount)}</td>
                <td className="pl-4">{other?.words}</td>
                <td className="text-right font-mono">{other && moneyText(other.amount)}</td>
              </tr>
            ))}
            <tr className="font-semibold">
              <td className="py-1">Together</td>
              <td className="text-right font-mono">{moneyText(spent.own_total, spent.currency)}</td>
              <td className="pl-4">Difference {moneyText(spent.saved, spent.currency)}</td>
              <td className="text-right font-mono">{moneyText(spent.service_total, spent.currency)}</td>
            </tr>
          </tbody>
        </table>
      </div>
      {spent.not_entered.length > 0 && (
        <p>
          <strong>An estimate.</strong> Nobody entered: {spent.not_entered.join(", ")}. The customer’s page leaves the
          comparison out until all of it is entered, here or on the depot’s page.
        </p>
      )}
      <details>
        <summary className="min-h-11 py-2">What this assumes</summary>
        <p>
          {Object.entries(spent.assumptions)
            .map(([name, value]) => `${ASSUMPTION_NAMES[name] ?? name}: ${value}`)
            .join("; ")}
          .
        </p>
      </details>
    </>
  );
}
