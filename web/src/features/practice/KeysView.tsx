import { EndTask } from "./EndTask";
import { Button } from "@/ui/Button";
import type { Action, Keying } from "./task";

type Props = { shown: Keying; onAct: (action: Action) => void; busy: boolean };

/** Values are keyed in on the board's own panels. */
export function KeysView(props: Props) {
  return (
    <>
      <Panels {...props} />
      <EndTask onAct={props.onAct} busy={props.busy}>
        It is keyed in
      </EndTask>
    </>
  );
}

/** What is to be keyed in; the panels with what they show, and their keys. */
export function Panels({ shown, onAct, busy }: Props) {
  return (
    <>
      <dl className="grid grid-cols-[1fr_auto] border-t border-rule">
        {shown.wanted_keys.map((each) => (
          <div key={each.element} className="contents">
            <dt className="border-b border-rule py-1.5">
              <span className="font-mono">{each.element}</span> {each.title}
            </dt>
            <dd className="border-b border-rule py-1.5 text-right font-mono text-lg">
              {each.value} {each.unit}
            </dd>
          </div>
        ))}
      </dl>
      {shown.panels.map((panel, number) => (
        <section key={number} aria-label={panel.title} className="flex flex-col gap-2 border-2 border-edge p-4">
          <h2 className="text-base">{panel.title}</h2>
          <output aria-label={`${panel.title} shows`} className="min-h-14 font-mono text-4xl">
            {panel.shows}
          </output>
          <div className="flex flex-wrap gap-2">
            {panel.keys.map(({ key, action }) => (
              <Button
                key={key}
                className="font-mono text-xl"
                disabled={busy}
                onClick={() => onAct({ do: "press", panel: number, action })}
              >
                {key}
              </Button>
            ))}
          </div>
        </section>
      ))}
      <p className="text-faint">Pressed so far: {shown.presses}.</p>
    </>
  );
}
