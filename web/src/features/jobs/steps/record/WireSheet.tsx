import { numberFrom } from "@/ui/numbers";
import type { Schemas } from "@/api/client";
import { newId } from "@/api/ids";
import { Button } from "@/ui/Button";
import { Choice, TextField } from "@/ui/fields";
import { Sheet } from "@/ui/Sheet";
import { useTypedForm } from "@/ui/typed";
import type { StepProps } from "../../stepProps";

type Props = StepProps & {
  plug: string;
  pin: string;
  signals: Schemas["SignalChoice"][];
  /** Whether the diagram has something here: then that no wire is there is said, and kept. */
  carries: boolean;
  onClose: () => void;
  onNext: () => void;
};
type Draft = { tag: string; colour: string; size: string; length: string; goes_to: string; signal: string };

/** The wire on one pin; keeping it moves on to the next pin. */
export function WireSheet({ job, put, plug, pin, signals, carries, onClose, onNext }: Props) {
  const there = Object.entries(job.wires).find(([, wire]) => wire.connector === plug && String(wire.pin) === pin);
  const wire = there?.[1];
  const {
    fields: draft,
    set: setDraft,
    done,
  } = useTypedForm<Draft>(`wire on ${plug}.${pin}`, {
    tag: text(wire?.tag),
    colour: text(wire?.colour),
    size: wire?.awg == null ? text(wire?.mm2) : `${wire.awg} AWG`,
    length: text(wire?.length_m),
    goes_to: text(wire?.goes_to),
    signal: text(wire?.signal),
  });
  const size = sizeFrom(draft.size);
  const length = numberFrom(draft.length);
  const wrong = draft.size.trim() !== "" && size === null;
  const wrongLength = draft.length.trim() !== "" && !(length > 0);
  const set = (name: keyof Draft) => (event: { target: { value: string } }) => setDraft({ [name]: event.target.value });
  const keep = () => {
    const words = Object.fromEntries(
      (["tag", "colour", "goes_to", "signal"] as const)
        .map((name) => [name, draft[name].trim()])
        .filter(([, value]) => value),
    ) as Record<string, string>;
    const after = { ...words, connector: plug, pin, ...size, ...(length > 0 ? { length_m: length } : {}) };
    void put({ target: `wire.${there?.[0] ?? newId()}`, after });
    done();
    onNext();
  };
  return (
    <Sheet open onClose={onClose} title={`Wire on ${plug}.${pin}`}>
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField label="Tag" maxLength={40} value={draft.tag} disabled={job.closed} onChange={set("tag")} />
        <TextField label="Colour" maxLength={40} value={draft.colour} disabled={job.closed} onChange={set("colour")} />
        <TextField
          label="Size in mm², or its gauge"
          value={draft.size}
          disabled={job.closed}
          aria-invalid={wrong}
          hint={wrong && <strong role="alert">A number above 0, or a gauge such as 18 AWG, is needed here.</strong>}
          onChange={set("size")}
        />
        <TextField
          label="Length in m, where it is long"
          inputMode="decimal"
          value={draft.length}
          disabled={job.closed}
          aria-invalid={wrongLength}
          onChange={set("length")}
        />
        <TextField
          label="Goes to"
          maxLength={200}
          value={draft.goes_to}
          disabled={job.closed}
          onChange={set("goes_to")}
        />
        <Choice
          label="Followed to its end, it is"
          hint="Only where somebody followed it: it is held against the diagram."
          value={draft.signal}
          disabled={job.closed}
          onChange={set("signal")}
        >
          <option value="">not followed</option>
          {signals.map((signal) => (
            <option key={signal.id} value={signal.id}>
              {signal.title}
            </option>
          ))}
        </Choice>
      </div>
      {!job.closed && (
        <div className="mt-4 flex flex-wrap gap-2">
          <Button kind="main" disabled={wrong || wrongLength} onClick={keep}>
            Keep, next pin
          </Button>
          <Button
            onClick={() => {
              if (carries && !there)
                void put({ target: `settled.${plug}.${pin}`, after: { as: "no wire was there", note: "" } });
              done();
              onNext();
            }}
          >
            No wire here, next pin
          </Button>
          {there && (
            <Button kind="quiet" onClick={() => (void put({ target: `wire.${there[0]}`, after: null }), onClose())}>
              Take this wire out
            </Button>
          )}
        </div>
      )}
    </Sheet>
  );
}

function text(value: unknown): string {
  return value === undefined || value === null ? "" : String(value);
}

/** A wire’s size as it is marked: a cross-section, or a gauge number; null where it is neither. */
function sizeFrom(text: string): { mm2: number } | { awg: number } | null {
  const gauge = /^(\d{1,2})\s*(awg|ga\.?|gauge)$/i.exec(text.trim());
  if (gauge) return Number(gauge[1]) <= 40 ? { awg: Number(gauge[1]) } : null;
  const area = numberFrom(text);
  return area > 0 ? { mm2: area } : null;
}
