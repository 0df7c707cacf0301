import type { Schemas } from "@/api/client";
import { SetPositions } from "@/comparison/SetPositions";
import type { Board } from "@/comparison/Standing";
import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { VerdictMark } from "@/ui/inks";
import { useState } from "react";
import type { StepProps } from "../../stepProps";

type Comparison = Schemas["ComparisonShown"];

const NAMES: Record<Schemas["SchoolShown"]["id"], string> = {
  functions: "By its functions",
  table: "By the table",
  positions: "Position for position",
  learning: "By learning",
};

/** What each school would set and what the machine would do; where they disagree, a person decides and says why. */
export function SchoolsPanel({ job, put, comparison, board }: StepProps & { comparison: Comparison; board: Board }) {
  return (
    <>
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Schools">
        <table className="w-full min-w-[40rem] border-collapse text-left align-top">
          <thead>
            <tr className="border-b border-text">
              <th scope="col" className="py-2 pr-3">
                <span className="sr-only">Row</span>
              </th>
              {comparison.schools.map((school) => (
                <th key={school.id} scope="col" className="py-2 pr-3">
                  {NAMES[school.id]}
                  {comparison.proposed === school.id && <span className="block text-sm font-normal">proposed</span>}
                  {job.school === school.id && <span className="block text-sm font-normal">followed</span>}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <Row name="Sets">
              {comparison.schools.map((school) => (
                <td key={school.id} className="py-2 pr-3">
                  {school.positions ? (
                    <SetPositions board={board} positions={school.positions} />
                  ) : (
                    <span className="text-faint">says nothing here</span>
                  )}
                </td>
              ))}
            </Row>
            {comparison.rows
              .filter((row) => row.on_original || row.on_replacement)
              .map((row) => (
                <Row key={row.id} name={row.title}>
                  {comparison.schools.map((school) => {
                    const said = school.functions.find((each) => each.id === row.id);
                    return (
                      <td key={school.id} className={`py-1.5 pr-3 ${said?.missed ? "font-semibold" : ""}`}>
                        {said?.value ?? "–"}
                        {said?.difference && said.value !== "open" && (
                          <span className="block text-sm">{said.difference}</span>
                        )}
                      </td>
                    );
                  })}
                </Row>
              ))}
            <Row name="Twin check">
              {comparison.schools.map((school) => (
                <td key={school.id} className="py-2 pr-3">
                  {school.proof ? <VerdictMark verdict={school.proof.verdict} /> : "–"}
                </td>
              ))}
            </Row>
            <Row name="Rests on">
              {comparison.schools.map((school) => (
                <td key={school.id} className="py-2 pr-3 text-sm">
                  {school.says.map((line) => (
                    <p key={line}>{line}</p>
                  ))}
                  {school.id === "positions" && !school.counts && (
                    <p>The banks do not look alike: nobody would copy here.</p>
                  )}
                </td>
              ))}
            </Row>
          </tbody>
        </table>
      </div>
      {comparison.schools
        .filter((school) => school.counts && school.proof?.verdict === "different" && school.id !== "functions")
        .map((school) => (
          <details key={school.id}>
            <summary className="min-h-11 py-2 font-semibold">
              {NAMES[school.id]}: what the machine would then do
            </summary>
            <ol className="list-decimal pl-6">
              {school.proof?.told.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ol>
          </details>
        ))}
      {comparison.disagreements.map((each) => (
        <Decision key={each.id} job={job} put={put} disagreement={each} />
      ))}
      {(comparison.disagreements.length > 1 || comparison.proposed === "table") && (
        <Whole job={job} put={put} comparison={comparison} />
      )}
    </>
  );
}

function Row({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <tr className="border-b border-rule align-top">
      <th scope="row" className="py-1.5 pr-3 font-normal">
        {name}
      </th>
      {children}
    </tr>
  );
}

/** One function on which the schools disagree. */
function Decision({ job, put, disagreement }: StepProps & { disagreement: Schemas["DisagreementShown"] }) {
  const decided = job.decisions[disagreement.id] ?? job.school;
  return (
    <section aria-label={`Decide ${disagreement.title}`} className="border-l-4 border-text pl-3">
      <p className="font-semibold">
        {disagreement.title}: found {disagreement.found}
      </p>
      <p>{decided && <strong>Decided: {NAMES[decided].toLowerCase()}</strong>}</p>
      <ul>
        {disagreement.says.map(({ school, value, difference }) => (
          <li key={school}>
            {NAMES[school]}: {value}
            {difference ? `, ${difference}` : ", as found"}
          </li>
        ))}
      </ul>
      {!job.closed && (
        <Follow
          schools={disagreement.says.map((each) => each.school)}
          what={disagreement.title}
          onFollow={(school, reason) => void put({ target: `decision.${disagreement.id}`, after: school, reason })}
        />
      )}
    </section>
  );
}

/** One school followed in everything on which they disagree. */
function Whole({ job, put, comparison }: StepProps & { comparison: Comparison }) {
  if (job.closed) return null;
  return (
    <section aria-label="Follow one school in everything" className="border-l-4 border-rule pl-3">
      <p className="font-semibold">Or follow one school in everything</p>
      <Follow
        schools={comparison.schools.filter((each) => each.positions !== null && each.counts).map((each) => each.id)}
        what="everything"
        onFollow={(school, reason) => void put({ target: "school", after: school, reason })}
      />
    </section>
  );
}

type SchoolName = Schemas["SchoolShown"]["id"];
type FollowProps = { schools: SchoolName[]; what: string; onFollow: (school: SchoolName, reason: string) => void };

function Follow({ schools, what, onFollow }: FollowProps) {
  const [reason, setReason] = useState("");
  return (
    <div className="mt-1 flex flex-col gap-2">
      <div className="max-w-md">
        <TextField
          label={`Why, for ${what.toLowerCase()}`}
          maxLength={2000}
          value={reason}
          onChange={(event) => setReason(event.target.value)}
        />
      </div>
      <div className="flex flex-wrap gap-2">
        {schools.map((school) => (
          <Button key={school} disabled={!reason.trim()} onClick={() => onFollow(school, reason.trim())}>
            {NAMES[school]}
          </Button>
        ))}
      </div>
      {!reason.trim() && <p className="text-sm text-faint">First: the reason.</p>}
    </div>
  );
}
