import type { Waiting } from "@/api/outbox";
import { Button } from "@/ui/Button";
import { clock } from "@/ui/times";
import { useEntryWords } from "../entries/entryWords";

type Change = { target: string; before?: unknown; after?: unknown; by: string; at: string };
type Props = { each: Waiting; onMine: () => void; onTheirs: () => void; busy: boolean };

/** One entry that the depot did not take: what was said here and what was said there, side by side; somebody decides. */
export function Collision({ each, onMine, onTheirs, busy }: Props) {
  const { entry, refused } = each;
  const theirs = (refused?.changes ?? []) as Change[];
  const [mine, ...others] = useEntryWords(each.job, [entry, ...theirs]);
  return (
    <article className="border-l-4 border-text py-1 pl-3">
      <h3>{mine?.about}</h3>
      <div className="my-2 grid gap-3 sm:grid-cols-2">
        <div>
          <p className="font-semibold">You said{entry.made_at ? `, ${clock(entry.made_at)}` : ""}</p>
          <p>{mine?.after}</p>
          {entry.reason && <p className="text-faint">{entry.reason}</p>}
        </div>
        {theirs.length > 0 && (
          <ul aria-label="What was said meanwhile" className="flex flex-col gap-2">
            {theirs.map((change, index) => (
              <li key={index}>
                <p className="font-semibold">
                  {change.by} said, {clock(change.at)}
                </p>
                <p>
                  {change.target !== entry.target && `${others[index]?.about}: `}
                  {others[index]?.after}
                </p>
              </li>
            ))}
          </ul>
        )}
      </div>
      <p className="mb-2">{refused?.detail}</p>
      <div className="flex flex-wrap gap-2">
        <Button disabled={busy} onClick={onMine}>
          {theirs.length ? "I looked: mine stands" : "Send it again"}
        </Button>
        <Button disabled={busy} onClick={onTheirs}>
          {theirs.length ? "Theirs stands: drop mine" : "Drop it"}
        </Button>
      </div>
    </article>
  );
}
