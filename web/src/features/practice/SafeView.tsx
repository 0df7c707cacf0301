import { Button } from "@/ui/Button";
import { timeWords } from "@/ui/numbers";
import type { Action, Safety } from "./task";

type Props = { shown: Safety; onAct: (action: Action) => void; busy: boolean };

const WAITS = [60, 300];

/** What this machine asks for, in no order; time goes by when one waits. */
export function SafeView({ shown, onAct, busy }: Props) {
  return (
    <>
      <p role="status">{shown.off_s === null ? "The machine is on." : `Off for ${timeWords(shown.off_s)}.`}</p>
      <ul className="border-t border-rule" aria-label="What can be done">
        {shown.points.map((each) => (
          <li key={each.id} className="flex flex-wrap items-center gap-3 border-b border-rule py-2.5">
            <div className="min-w-0 grow basis-60">
              <strong>{each.title}</strong>
              {each.say.map((line) => (
                <span key={line} className="block text-sm text-faint">
                  {line}
                </span>
              ))}
            </div>
            {each.done ? (
              <span>done, {shown.done.indexOf(each.id) + 1}.</span>
            ) : (
              <Button
                aria-label={`Do it: ${each.title}`}
                disabled={busy}
                onClick={() => onAct({ do: "hold", point: each.id })}
              >
                Do it
              </Button>
            )}
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-2">
        {WAITS.map((seconds) => (
          <Button key={seconds} disabled={busy} onClick={() => onAct({ do: "wait", seconds })}>
            Wait {timeWords(seconds)}
          </Button>
        ))}
      </div>
      <Button kind="main" className="self-start" disabled={busy} onClick={() => onAct({ do: "touch" })}>
        Take hold of the board
      </Button>
    </>
  );
}
