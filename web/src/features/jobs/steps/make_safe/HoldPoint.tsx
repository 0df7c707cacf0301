import { useKeptState } from "@/ui/typed";
import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import type { ReactNode } from "react";
import { LABELS } from "./labels";
import { Pairs } from "./Pairs";
import { outlives, placeOf, readingsOf, sent, type Said, type Sent } from "./said";
import { minutes, useCountdown } from "./useCountdown";

type Point = Schemas["HoldShown"];
type Props = {
  point: Point;
  readAt: number;
  lockedOffAt: string | null;
  disabled: boolean;
  open: boolean;
  /** What the server would not take of it. */
  refusal?: ReactNode;
  onOpen: () => void;
  /** Whether it was not refused. */
  onHold: (said: Sent) => Promise<boolean>;
  onSkip: (reason: string) => void;
  onTakeBack: () => void;
};

/** One hold point: what to do, what to say of it, and what was said. */
export function HoldPoint(props: Props) {
  const { point, readAt, lockedOffAt, disabled, open, refusal, onOpen, onHold, onSkip, onTakeBack } = props;
  if (point.held) return <Held point={point} disabled={disabled} onTakeBack={onTakeBack} />;
  if (!open) return <Folded point={point} readAt={readAt} lockedOffAt={lockedOffAt} onOpen={onOpen} />;
  return (
    <li
      id={`hold-${point.id}`}
      tabIndex={-1}
      className="hatched scroll-mt-24 flex flex-col gap-3 px-4 py-4"
      aria-label={point.title}
    >
      <h3>{point.title}</h3>
      {point.say.length > 0 && (
        <ul className="list-disc pl-5">
          {point.say.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      )}
      <Ask point={point} readAt={readAt} lockedOffAt={lockedOffAt} disabled={disabled} onHold={onHold} />
      {refusal}
      {!disabled && <Skip title={point.title} onSkip={onSkip} />}
    </li>
  );
}

type FoldedProps = Pick<Props, "point" | "readAt" | "lockedOffAt" | "onOpen">;

/** A hold point that comes later: one line, with what is left of its wait. */
function Folded({ point, readAt, lockedOffAt, onOpen }: FoldedProps) {
  const left = useCountdown(point.left_s, readAt);
  return (
    <li className="border-b border-rule">
      <button type="button" className="flex min-h-12 w-full items-baseline gap-3 py-2 text-left" onClick={onOpen}>
        <span aria-hidden="true" className="font-mono text-lg">
          ○
        </span>
        <span className="font-semibold">{point.title}</span>
        {point.wait_s > 0 && lockedOffAt !== null && (
          <span className="font-mono">{left > 0 ? `wait ${minutes(left)}` : "measure now"}</span>
        )}
      </button>
    </li>
  );
}

type AskProps = Pick<Props, "point" | "readAt" | "lockedOffAt" | "disabled" | "onHold">;

function Ask({ point, readAt, lockedOffAt, disabled, onHold }: AskProps) {
  const [said, setSaid] = useKeptState<Said>(placeOf(point.id, lockedOffAt), {}, (all) => outlives(all, lockedOffAt));
  const confirm = async () => {
    if (await onHold(sent(said))) setSaid({});
  };
  const left = useCountdown(point.left_s, readAt);
  const waits = point.wait_s > 0 && (lockedOffAt === null || left > 0);
  return (
    <>
      {point.wait_s > 0 && (
        <p role="timer" className="text-lg">
          {lockedOffAt !== null ? (
            left > 0 ? (
              <>
                Wait <span className="font-mono text-3xl font-semibold">{minutes(left)}</span> more
              </>
            ) : (
              "Wait time is up. Now measure: only a reading ends the wait."
            )
          ) : (
            `The wait of ${minutes(point.wait_s)} starts when the supply is locked off.`
          )}
          {point.energy_j !== null && (
            <span className="block text-sm text-faint">{Number(point.energy_j.toPrecision(2))} J are stored</span>
          )}
        </p>
      )}
      <div className="flex flex-col gap-3">
        {point.asks.map((name) =>
          name === "readings" ? (
            <Pairs
              key={name}
              point={point}
              readings={readingsOf(said)}
              disabled={disabled}
              onChange={(readings) => setSaid({ ...said, readings })}
            />
          ) : name.startsWith("checked") ? (
            <label key={name} className="flex min-h-11 items-center gap-3">
              <input
                type="checkbox"
                className="size-6 shrink-0"
                disabled={disabled}
                checked={said[name] === true}
                onChange={(event) => setSaid({ ...said, [name]: event.target.checked })}
              />
              {LABELS[name]}
            </label>
          ) : (
            <div key={name} className="max-w-sm">
              <TextField
                label={LABELS[name] ?? name}
                hint={name === "reading" && point.limit !== null ? `must be below ${point.limit} ${point.unit}` : ""}
                inputMode={name === "reading" ? "decimal" : "text"}
                maxLength={200}
                disabled={disabled}
                value={String(said[name] ?? "")}
                onChange={(event) => setSaid({ ...said, [name]: event.target.value })}
              />
            </div>
          ),
        )}
      </div>
      {!disabled && (
        <Button kind="main" className="self-start" disabled={waits} onClick={() => void confirm()}>
          {point.title}: confirmed
        </Button>
      )}
    </>
  );
}

function Skip({ title, onSkip }: { title: string; onSkip: (reason: string) => void }) {
  const [reason, setReason] = useKeptState<string | null>(`skip ${title}`, null);
  if (reason === null)
    return (
      <Button kind="quiet" className="self-start" onClick={() => setReason("")}>
        Skip this one
      </Button>
    );
  return (
    <div className="flex flex-col gap-2 border-l-4 border-text pl-3">
      <TextField
        label={`Why ${title.toLowerCase()} is skipped`}
        hint="The reason stands on every later page and on the job sheet."
        maxLength={400}
        value={reason}
        onChange={(event) => setReason(event.target.value)}
      />
      <div className="flex flex-wrap gap-2">
        <Button
          needs={lacking({ "the reason": !reason.trim() })}
          onClick={() => (onSkip(reason.trim()), setReason(null))}
        >
          Skip with this reason
        </Button>
        <Button kind="quiet" onClick={() => setReason(null)}>
          Do not skip
        </Button>
      </div>
    </div>
  );
}

function Held({ point, disabled, onTakeBack }: Pick<Props, "point" | "disabled" | "onTakeBack">) {
  const held = (point.held ?? {}) as Record<string, unknown>;
  const words = point.asks
    .filter((name) => !name.startsWith("checked") && held[name] !== undefined)
    .flatMap((name) =>
      name === "readings"
        ? point.pairs.map(
            (pair) => `${pair.title} ${String((held.readings as Record<string, unknown>)[pair.id])} ${point.unit}`,
          )
        : `${(LABELS[name] ?? name).toLowerCase()} ${String(held[name])}${name === "reading" ? ` ${point.unit}` : ""}`,
    );
  return (
    <li className="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-3" aria-label={point.title}>
      <span aria-hidden="true" className="font-mono text-lg">
        {held.skipped ? "!" : "✓"}
      </span>
      <strong>{point.title}</strong>
      <span>{held.skipped ? `skipped: ${String(held.reason)}` : words.join(", ")}</span>
      <span className="text-faint">
        {String(held.by ?? "")}
        {typeof held.at === "string" && `, ${new Date(held.at).toLocaleTimeString([], { timeStyle: "short" })}`}
      </span>
      {!disabled && (
        <Button kind="quiet" aria-label={`Take back: ${point.title}`} onClick={onTakeBack}>
          Take back
        </Button>
      )}
    </li>
  );
}
