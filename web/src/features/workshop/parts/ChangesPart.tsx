import { lacking } from "@/ui/lacking";
import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { Loading, ProblemNotice } from "@/ui/notices";
import { useKeptState } from "@/ui/typed";
import { Link } from "@tanstack/react-router";
import { useChanges, useStep, type Draft, type DraftFunction } from "../api";
import type { PartProps } from "./types";

type Changes = Schemas["ChangesShown"];

/** What publishing would change, and what becomes of the draft. */
export function ChangesPart({ draft }: PartProps) {
  const changes = useChanges(draft);
  const faults = draft.findings.filter((each) => each.weight === "fault");
  return (
    <section aria-label="What changes" className="flex flex-col gap-4">
      <ProblemNotice problem={changes.error} />
      {changes.isPending && <Loading what="Working out what changes" />}
      {faults.length > 0 && (
        <section>
          <h3>To put right first</h3>
          <ul>
            {faults.slice(0, 20).map((each) => (
              <li key={each.place + each.says} className="border-b border-rule py-1.5">
                <strong>{each.where}</strong>: {each.says}
              </li>
            ))}
          </ul>
        </section>
      )}
      {changes.data && faults.length === 0 && <Told changes={changes.data} />}
      {changes.data && changes.data.open_jobs.length > 0 && (
        <section>
          <h3>Open jobs with this board</h3>
          <ul>
            {changes.data.open_jobs.map((each) => (
              <li key={each}>{each}</li>
            ))}
          </ul>
          <p className="text-sm text-faint">
            They stay with the revision that they began with until somebody takes the new one there.
          </p>
        </section>
      )}
      {changes.data && <Steps draft={draft} changes={changes.data} />}
    </section>
  );
}

const isEmpty = (cell: DraftFunction["cells"][number]) => cell.text === "";

const HOW = { new: "new", gone: "gone", changed: "otherwise", same: "the same" };

function Told({ changes }: { changes: Changes }) {
  if (changes.nothing) return <p>Nothing is otherwise than in revision {changes.over}.</p>;
  return (
    <>
      <section>
        <h3>Against revision {changes.over}</h3>
        <ul>
          {changes.elements.map((each) => (
            <li key={each.id} className="border-b border-rule py-1.5">
              <span className="font-mono">{each.id}</span>: {HOW[each.how]}
            </li>
          ))}
          {changes.functions.map((each) => (
            <li key={each.id} className="border-b border-rule py-1.5">
              <strong>{each.title}</strong>: {HOW[each.how]}
              {each.count > 0 && ` at ${each.count} ${each.count === 1 ? "position" : "positions"}`}
              {each.moved.map((moved) => (
                <span key={moved.at} className="block pl-4 text-sm">
                  <span className="font-mono">{moved.at}</span>: was {moved.was}, becomes {moved.becomes}
                </span>
              ))}
            </li>
          ))}
          {changes.parts.length > 0 && <li className="py-1.5">Also otherwise: {changes.parts.join(", ")}</li>}
        </ul>
      </section>
      {changes.verdict && (
        <section>
          <h3>Twin check of the two revisions</h3>
          <p>{changes.verdict}</p>
          <ol className="list-decimal pl-6">
            {changes.counter_case.map((each) => (
              <li key={each}>{each}</li>
            ))}
          </ol>
        </section>
      )}
      {changes.traces.length > 0 && (
        <section>
          <h3>Against what was timed</h3>
          <ul>
            {changes.traces.map((each, index) => (
              <li key={index} className={each.before && each.agrees === false ? "font-semibold" : ""}>
                {each.job}
                {each.title && `, ${each.title}`}: {agreeing(each)}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

function agreeing({ agrees, before }: Schemas["DraftTraced"]): string {
  if (agrees === null) return "cannot be worked out, for a position was not read";
  if (agrees) return before ? "agrees, as before" : "agrees now";
  return before ? "does not agree any more" : "does not agree, as before";
}

/** A technician proposes, the parts lead publishes or sends back; either puts away. */
function Steps({ draft, changes }: { draft: Draft; changes: Changes }) {
  const [words, setWords] = useKeptState("publish words", "");
  const step = useStep(draft);
  if (draft.state === "published" || draft.state === "given_up")
    return (
      <p>
        This draft is done with.{" "}
        <Link to="/catalogue/$partNumber" params={{ partNumber: draft.part_number }} search={{}}>
          The board in the catalogue
        </Link>
      </p>
    );
  const done = () => setWords("");
  const ready = changes.faults === 0 && !changes.nothing;
  const empties = draft.functions.filter((each) => each.said && each.points.length > 0 && each.cells.some(isEmpty));
  return (
    <form className="flex flex-col gap-3 border-t border-rule pt-3" onSubmit={(event) => event.preventDefault()}>
      <ProblemNotice problem={step.error} />
      {empties.length > 0 && (
        <div role="alert" className="border-l-4 border-text pl-3">
          <strong>Empty rows: are these settings forbidden?</strong> Nobody could set a board to them any more.
          <ul>
            {empties.map((each) => (
              <li key={each.id}>
                {each.title}: {each.cells.filter(isEmpty).length} of {each.cells.length} rows are empty.
              </li>
            ))}
          </ul>
        </div>
      )}
      <TextField
        label={draft.may_publish ? "Why it is published, or what is missing" : "What the parts lead should know"}
        maxLength={2000}
        value={words}
        onChange={(event) => setWords(event.target.value)}
      />
      <p className="flex flex-wrap gap-3">
        {draft.may_publish ? (
          <>
            <Button
              kind="main"
              disabled={!ready || !words.trim() || step.isPending}
              onClick={() => step.mutate({ to: "published", over: changes.over, reason: words }, { onSuccess: done })}
            >
              Publish as revision {changes.over + 1}
            </Button>
            {draft.state === "proposed" && (
              <Button
                needs={lacking({ "what is to be changed": !words.trim() })}
                onClick={() => step.mutate({ to: "open", note: words }, { onSuccess: done })}
              >
                Send it back
              </Button>
            )}
          </>
        ) : (
          <Button
            kind="main"
            disabled={changes.nothing || draft.state === "proposed" || step.isPending}
            onClick={() => step.mutate({ to: "proposed", note: words }, { onSuccess: done })}
          >
            {draft.state === "proposed" ? "Proposed" : "Propose it to the parts lead"}
          </Button>
        )}
        <Button kind="quiet" onClick={() => step.mutate({ to: "given_up", note: words })}>
          Put it away
        </Button>
      </p>
      {changes.nothing && <p className="text-sm text-faint">There is nothing to publish yet.</p>}
    </form>
  );
}
