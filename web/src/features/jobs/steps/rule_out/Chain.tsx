import { Band, bandWords, shown } from "@/drawing/Band";
import { SensorCurve } from "@/drawing/SensorCurve";
import type { Job } from "../../api";
import type { RuleOut } from "./types";

/** What was said and tested, link by link, and what each did to the suspicion. */
export function Chain({ job, data }: { job: Job; data: RuleOut }) {
  if (data.chain.length === 0) return null;
  return (
    <div className="flex flex-col gap-2">
      {data.contradictory && (
        <p className="border-l-4 border-text pl-3 font-semibold">
          Two results cannot both be right with any suspect of this family. Repeat the one that is easier.
        </p>
      )}
      <ol className="border-t border-rule">
        {data.chain.map((link) => (
          <li key={`${link.kind}-${link.id}`} className="border-b border-rule py-2">
            <p>
              <strong>{link.title}</strong>: {link.result}
              {link.read && link.value === null && `, ${link.read}`}
              {link.verdict && ` (${link.verdict}${marginWords(link.margin, link.unit)})`}
            </p>
            <p className="text-[0.95rem] text-faint">
              {link.words}. Then leading: {link.leading}.
            </p>
            {link.value !== null && <Drawn link={link} data={data} uncertainty={uncertaintyOf(job, data, link.id)} />}
          </li>
        ))}
      </ol>
      <p>
        <a href={`/api/jobs/${job.id}/reasoning.pdf`} className="inline-block min-h-11 py-2">
          Print the reasoning (PDF)
        </a>
      </p>
    </div>
  );
}

function Drawn({ link, data, uncertainty }: { link: RuleOut["chain"][number]; data: RuleOut; uncertainty: number }) {
  const reading = data.tests.find((test) => test.id === link.id)?.reading;
  if (!reading || link.value === null) return null;
  if (reading.curve !== null && link.at_c !== null)
    return (
      <>
        <SensorCurve
          title={reading.curve}
          points={reading.points}
          unit={reading.unit}
          reading={{ at: link.at_c, value: link.value }}
        />
        <p className="text-sm text-faint">
          {shown(link.value)} {reading.unit} at {shown(link.at_c)} °C; expected{" "}
          {bandWords(link.low, link.high, reading.unit)}
        </p>
      </>
    );
  return <Band value={link.value} uncertainty={uncertainty} low={link.low} high={link.high} unit={reading.unit} />;
}

function uncertaintyOf(job: Job, data: RuleOut, id: string) {
  const own = job.tests[id]?.uncertainty;
  return typeof own === "number" ? own : (data.tests.find((test) => test.id === id)?.reading?.uncertainty ?? 0);
}

function marginWords(margin: number | null, unit: string) {
  if (margin === null) return "";
  return margin >= 0 ? `, ${shown(margin)} ${unit} to spare` : `, ${shown(-margin)} ${unit} beyond`;
}
