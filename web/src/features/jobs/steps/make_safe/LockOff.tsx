import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { useKeptState } from "@/ui/typed";
import { inTurn } from "../../entries/inTurn";
import { RefusalAt } from "../../entries/Refusal";
import type { StepProps } from "../../stepProps";
import { LABELS } from "./labels";
import { Pairs } from "./Pairs";
import { complete, outlives, readingsOf, sent, placeOf, type Said } from "./said";
import { minutes, useCountdown } from "./useCountdown";

type Safe = Schemas["MakeSafeShown"] & { read_at: number };

/** Every hold point on one screen: read, ticked and confirmed together; a wait still runs from the locking off. */
export function LockOff({ put, safe }: Pick<StepProps, "put"> & { safe: Safe }) {
  const open = safe.points.filter((point) => point.held === null);
  const [said, setSaid] = useKeptState<Record<string, Said>>(placeOf("hold points", safe.locked_off_at), {}, (all) =>
    Object.fromEntries(Object.entries(all).map(([id, each]) => [id, outlives(each, safe.locked_off_at)])),
  );
  const set = (id: string, name: string, value: Said[string]) =>
    setSaid({ ...said, [id]: { ...said[id], [name]: value } });
  const waits = open.filter((point) => point.wait_s > 0);
  const left = useCountdown(Math.max(0, ...waits.map((point) => point.left_s)), safe.read_at);
  const waiting = waits.length > 0 && (safe.locked_off_at === null || left > 0);
  const now = open.filter((point) => !waiting || point.wait_s === 0);
  const missing = now.some((point) => !complete(point, said[point.id] ?? {}));
  const confirm = async () => {
    const held = await inTurn(put, [
      ...now.map((point) => ({ target: `hold.${point.id}` as const, after: sent(said[point.id] ?? {}) })),
      ...(waiting ? [] : [{ target: "confirmed.make_safe" as const, after: { note: "" } }]),
    ]);
    if (held) setSaid({});
  };
  return (
    <section aria-label="Every hold point" className="hatched flex flex-col gap-4 px-4 py-4">
      {now.map((point) => (
        <div key={point.id} className="flex flex-col gap-2 border-b border-rule pb-3">
          <h3>{point.title}</h3>
          {point.say.length > 0 && <p className="leading-snug">{point.say.join(" ")}</p>}
          <div className="grid items-end gap-3 sm:grid-cols-3">
            {point.asks
              .filter((name) => !name.startsWith("checked") && name !== "readings")
              .map((name) => (
                <TextField
                  key={name}
                  label={`${LABELS[name] ?? name}${name === "reading" ? ` in ${point.unit}` : ""}`}
                  hint={name === "reading" && point.limit !== null ? `must be below ${point.limit} ${point.unit}` : ""}
                  aria-label={`${point.title}: ${LABELS[name] ?? name}${name === "reading" ? ` in ${point.unit}` : ""}`}
                  inputMode={name === "reading" ? "decimal" : "text"}
                  maxLength={200}
                  value={String(said[point.id]?.[name] ?? "")}
                  onChange={(event) => set(point.id, name, event.target.value)}
                />
              ))}
          </div>
          <AsBefore
            point={point}
            before={safe.as_before[point.id]}
            said={said[point.id] ?? {}}
            onTake={(before) => setSaid({ ...said, [point.id]: { ...said[point.id], ...before } })}
          />
          {point.asks.includes("readings") && (
            <Pairs
              point={point}
              readings={readingsOf(said[point.id] ?? {})}
              onChange={(readings) => set(point.id, "readings", readings)}
            />
          )}
          {point.asks
            .filter((name) => name.startsWith("checked"))
            .map((name) => (
              <label key={name} className="flex min-h-11 items-center gap-3">
                <input
                  type="checkbox"
                  className="size-6 shrink-0"
                  checked={said[point.id]?.[name] === true}
                  onChange={(event) => set(point.id, name, event.target.checked)}
                />
                {LABELS[name]}
              </label>
            ))}
          <RefusalAt target={`hold.${point.id}`} />
        </div>
      ))}
      {waiting && (
        <p role="timer" className="text-lg">
          {safe.locked_off_at === null
            ? `Then a wait of ${minutes(Math.max(...waits.map((point) => point.wait_s)))} begins, and a reading ends it.`
            : `Wait ${minutes(left)} more, then measure: ${waits.map((point) => point.title.toLowerCase()).join(", ")}.`}
        </p>
      )}
      {now.length > 0 && (
        <Button kind="main" className="min-h-14 self-start" disabled={missing} onClick={() => void confirm()}>
          {waiting ? "All of this holds: begin the wait" : "All of this holds: begin the work"}
        </Button>
      )}
      {missing && <p className="text-sm">A reading and both checks of the instrument are needed first.</p>}
    </section>
  );
}

type Before = Safe["as_before"][string];
type AsBeforeProps = {
  point: Safe["points"][number];
  before: Before | undefined;
  said: Said;
  onTake: (before: Before) => void;
};

/** What was said of this machine the last time, offered: whoever takes it has looked that it is so again. */
function AsBefore({ point, before, said, onTake }: AsBeforeProps) {
  const rest = Object.entries(before ?? {}).filter(([name]) => point.asks.includes(name) && !said[name]);
  if (rest.length === 0) return null;
  const words = rest.map(([name, text]) => `${(LABELS[name] ?? name).toLowerCase()} ${text}`).join(", ");
  return (
    <Button className="self-start" onClick={() => onTake(Object.fromEntries(rest))}>
      Same as last time on this machine: {words}
    </Button>
  );
}
