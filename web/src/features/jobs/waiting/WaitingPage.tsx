import type { Waiting } from "@/api/outbox";
import { unsentBeside, type Unsent } from "@/api/unsent";
import { useSession } from "@/api/session";
import { Button } from "@/ui/Button";
import { Empty, Loading, ProblemNotice } from "@/ui/notices";
import { Link } from "@tanstack/react-router";
import { entryLine, useEntryWords } from "../entries/entryWords";
import { Collision } from "./Collision";
import { entriesFile, useWaitingActions, useWaitingJobs, type WaitingJob } from "./waitingApi";

/** What was made on this device and the depot does not have: what collides is decided here, and nothing is thrown away. */
export function WaitingPage() {
  const person = useSession().data?.username ?? "";
  const jobs = useWaitingJobs(person);
  const actions = useWaitingActions(person);
  // asked anew with each look at the entries
  const beside = unsentBeside(person);
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-5 px-4 py-6">
      <h1>What waits on this device</h1>
      {jobs.isPending && <Loading what="Looking" />}
      {jobs.data?.length === 0 && !hasBeside(beside) && (
        <Empty>Nothing waits. The depot has everything that was entered here.</Empty>
      )}
      {jobs.data?.map((each) => (
        <OfJob key={each.job} waiting={each} actions={actions} />
      ))}
      <ProblemNotice problem={actions.send.error ?? actions.again.error ?? actions.withdraw.error} />
      {(jobs.data?.length ?? 0) > 0 && (
        <Button className="self-start" onClick={() => void save(person, jobs.data ?? [])}>
          Save it as a file
        </Button>
      )}
      <Beside beside={beside} />
      <BringInEntries bringIn={actions.bringIn} />
    </main>
  );
}

const hasBeside = ({ drafts, tasks, vans }: Unsent) => drafts.length + tasks + vans.length > 0;

/** What waits beside entries of jobs: it is sent when its page is opened with a connection. */
function Beside({ beside }: { beside: Unsent }) {
  if (!hasBeside(beside)) return null;
  return (
    <section className="flex flex-col gap-1 border-t border-rule pt-3">
      <h2>Beside jobs</h2>
      <ul>
        {beside.drafts.map(({ draft, count }) => (
          <li key={draft} className="py-2.5">
            <Link to="/workshop/$draft" params={{ draft }}>
              {count === 1 ? "1 change" : `${count} changes`} to a draft in the workshop
            </Link>
          </li>
        ))}
        {beside.vans.map((van) => (
          <li key={van} className="py-2.5">
            <Link to="/stock/van/$id" params={{ id: van }} search={{ page: 1 }}>
              A count of a van’s shelf that was not ended
            </Link>
          </li>
        ))}
        {beside.tasks > 0 && (
          <li className="py-2.5">
            <Link to="/practice">{beside.tasks === 1 ? "1 task" : `${beside.tasks} tasks`} of practice</Link>
          </li>
        )}
      </ul>
    </section>
  );
}

type Actions = ReturnType<typeof useWaitingActions>;

function OfJob({ waiting, actions }: { waiting: WaitingJob; actions: Actions }) {
  const refused = waiting.entries.filter((each) => each.refused);
  const going = waiting.entries.filter((each) => !each.refused);
  return (
    <section className="flex flex-col gap-3 border-t border-rule pt-3">
      <h2>
        <Link to="/jobs/$id" params={{ id: waiting.job }}>
          {waiting.machine}
        </Link>
      </h2>
      {refused.map((each) => (
        <Collision
          key={each.order}
          each={each}
          busy={actions.again.isPending}
          onMine={() => actions.again.mutate(each)}
          onTheirs={() => actions.withdraw.mutate(each)}
        />
      ))}
      {going.length > 0 && (
        <>
          <ol aria-label="Waits to be sent">
            {[...new Set(going.map((each) => each.job))].map((sheet) => (
              <OfSheet key={sheet} sheet={sheet} entries={going.filter((each) => each.job === sheet)} />
            ))}
          </ol>
          <Button className="self-start" onClick={() => actions.send.mutate(waiting.job)}>
            Send now
          </Button>
        </>
      )}
    </section>
  );
}

/** What waits of one board's sheet: its words hang on that board. */
function OfSheet({ sheet, entries }: { sheet: string; entries: Waiting[] }) {
  const words = useEntryWords(
    sheet,
    entries.map(({ entry }) => entry),
  );
  return entries.map((each, index) => <li key={each.order}>{words[index] && entryLine(words[index])}</li>);
}

function BringInEntries({ bringIn }: { bringIn: Actions["bringIn"] }) {
  return (
    <details className="border-y border-rule">
      <summary className="min-h-12 py-3">Bring in what waited on another device</summary>
      <div className="flex flex-col gap-3 pb-4">
        <p>Only what you made yourself: it is sent under your name.</p>
        <label className="flex flex-col gap-1">
          <span className="font-semibold">File of entries (.json)</span>
          <input
            type="file"
            accept=".json,application/json"
            className="min-h-11"
            onChange={(event) => {
              const file = event.target.files?.[0];
              if (file) bringIn.mutate(file);
              event.target.value = "";
            }}
          />
        </label>
        <ProblemNotice problem={bringIn.error} />
        {bringIn.data !== undefined && (
          <p role="status">Brought in: {bringIn.data}. What could not be sent yet waits above.</p>
        )}
      </div>
    </details>
  );
}

async function save(person: string, jobs: WaitingJob[]) {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([await entriesFile(person, jobs)], { type: "application/json" }));
  link.download = `waiting-${person}.json`;
  link.click();
  URL.revokeObjectURL(link.href);
}
