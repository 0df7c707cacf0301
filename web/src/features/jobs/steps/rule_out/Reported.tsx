import { DraftField } from "../DraftField";
import { Segments } from "@/ui/Segments";
import type { RuleOutProps } from "./types";

/** What the machine does and does not do, the code that it shows, and when it began. */
export function Reported({ job, put, data }: RuleOutProps) {
  const report = (name: string, label: string, hint?: string) => (
    <DraftField
      label={label}
      hint={hint}
      value={job.report[name] ?? ""}
      disabled={job.closed}
      onSave={(text) => void put({ target: `report.${name}`, after: text || null })}
    />
  );
  return (
    <div className="flex flex-col gap-4">
      {job.complaint && <p>Reported: {job.complaint}</p>}
      <ul className="flex flex-col gap-2">
        {data.symptoms.map((symptom) => (
          <li key={symptom.id} className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1">
            <span>{symptom.title}</span>
            <Segments
              label={symptom.title}
              choices={[
                ["yes", "yes"],
                ["no", "no"],
                ["", "not said"],
              ]}
              value={job.symptoms[symptom.id] ?? ""}
              disabled={job.closed}
              onChange={(value) => void put({ target: `symptom.${symptom.id}`, after: value || null })}
            />
          </li>
        ))}
      </ul>
      <div className="grid gap-4 sm:grid-cols-2">
        {report("code", "Code shown", "As the board or panel shows it: E7, 2 flashes")}
        {report("since", "Since when", "And what happened then")}
        {report("pattern", "If it comes and goes", "How often, and when last")}
        {report(
          "changed",
          "What was changed before",
          "Where two things were changed at once, the cause is not isolated",
        )}
      </div>
      {job.report.code && data.code && (
        <p className="border-l-4 border-text pl-3">
          <span className="font-mono">{data.code.shown}</span> means {data.code.meaning}. Look at: {data.code.look_at}.
          Clears: {data.code.clears || "not known"}.
        </p>
      )}
      {job.report.code && !data.code && (
        <p className="text-sm text-faint">
          {job.original
            ? `${job.original} has no such code in its profile.`
            : "The boards of this family do not agree on it, or have none like it; it is looked up again once the board is recognised."}
        </p>
      )}
    </div>
  );
}
