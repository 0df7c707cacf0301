import { timeWords } from "@/ui/numbers";
import { Button } from "@/ui/Button";
import { SideName, type Side } from "@/ui/inks";
import type { KeyboardEvent } from "react";
import { changeTold, type Input } from "./inputs";
import type { Moment, Standing } from "./moments";

type Props = {
  moments: Moment[];
  /** Which of them is looked at. */
  place: number;
  /** When the two part, in seconds. */
  parting?: number;
  inputs: Input[];
  titles: Record<string, string>;
  onGo: (place: number) => void;
};

/** A scenario gone through change by change: what happened, and in which state each board is after it. */
export function MomentPanel({ moments, place, parting, inputs, titles, onGo }: Props) {
  const moment = moments[place];
  if (!moment) return null;
  const go = (next: number) => onGo(Math.max(0, Math.min(moments.length - 1, next)));
  const onKey = (event: KeyboardEvent) => {
    const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    go(place + step);
  };
  const happened = moment.changed.map(({ input, value }) => changeTold(inputs, input, value));
  return (
    <section aria-label="Change by change" className="flex flex-col gap-2" onKeyDown={onKey}>
      <div className="flex items-stretch gap-2">
        <Button aria-label="The change before" aria-disabled={place === 0} onClick={() => go(place - 1)}>
          <span aria-hidden="true">←</span>
        </Button>
        <p aria-live="polite" className="min-w-0 grow self-center leading-tight">
          <strong className="font-mono">{timeWords(moment.at)}</strong>{" "}
          {happened.length > 0 ? happened.join(", ") : place === 0 ? "at rest" : "by itself"}
          {moment.at === parting && <strong className="block">They part here.</strong>}
          <span className="sr-only">
            Change {place + 1} of {moments.length}.
          </span>
        </p>
        <Button
          aria-label="The change after"
          aria-disabled={place === moments.length - 1}
          onClick={() => go(place + 1)}
        >
          <span aria-hidden="true">→</span>
        </Button>
      </div>
      <dl className="grid grid-cols-[repeat(auto-fit,minmax(min(9rem,100%),1fr))] gap-x-4">
        <Board side="original" now={moment.original} other={moment.replacement} titles={titles} />
        <Board side="replacement" now={moment.replacement} other={moment.original} titles={titles} />
      </dl>
    </section>
  );
}

type BoardProps = { side: Side; now: Standing; other: Standing; titles: Record<string, string> };

function Board({ side, now, other, titles }: BoardProps) {
  const alone = (output: string) => other.known && !other.on.includes(output);
  return (
    <div>
      <dt>
        <SideName side={side} />
      </dt>
      <dd className="leading-snug">
        <span className="block">{now.known ? now.states.join(", ") || "no power" : "goes round without end"}</span>
        {now.on.map((output) => (
          <span
            key={output}
            className={`block ${alone(output) ? (side === "original" ? "font-bold text-original" : "font-bold text-replacement") : ""}`}
          >
            {titles[output] ?? output} on{alone(output) && ", here alone"}
          </span>
        ))}
        {now.known && now.on.length === 0 && <span className="block text-faint">nothing on</span>}
      </dd>
    </div>
  );
}
