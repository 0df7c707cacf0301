import type { Schemas } from "@/api/client";
import { newId } from "@/api/ids";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { Choice, TextField } from "@/ui/fields";
import { oneOf } from "@/ui/oneOf";
import { useTypedForm } from "@/ui/typed";
import { useWayIn } from "../earlyApi";
import type { StepProps } from "../stepProps";

const KINDS = ["screw", "panel", "bracket", "plug", "routing", "part", "tool"] as const;
type Draft = { what: string; kind: (typeof KINDS)[number]; count: string; place: string };
type Piece = Schemas["RemovedKept"];

/** What comes off on the way in, as it comes off; played back in reverse when it goes on again. */
export function RemovalPart({ job, put, record }: StepProps & { record: Schemas["RecordShown"] }) {
  const { fields: draft, set: setDraft } = useTypedForm<Draft>("comes off", {
    what: "",
    kind: "screw",
    count: "1",
    place: "",
  });
  const count = Number(draft.count);
  const log = Object.entries(job.removed).sort(([, a], [, b]) => b.n - a.n);
  const add = () => {
    void put({ target: `removed.${newId()}`, after: { ...draft, count } });
    setDraft({ what: "", count: "1" });
  };
  return (
    <>
      {!job.closed && (
        <div className="grid items-end gap-3 sm:grid-cols-4">
          <TextField
            label="What comes off"
            maxLength={200}
            value={draft.what}
            onChange={(event) => setDraft({ what: event.target.value })}
          />
          <Choice
            label="Kind"
            value={draft.kind}
            onChange={(event) => setDraft({ kind: oneOf(event.target.value, KINDS, draft.kind) })}
          >
            {KINDS.map((kind) => (
              <option key={kind}>{kind}</option>
            ))}
          </Choice>
          <TextField
            label="How many"
            inputMode="numeric"
            value={draft.count}
            onChange={(event) => setDraft({ count: event.target.value })}
          />
          <TextField
            label="From where"
            maxLength={200}
            value={draft.place}
            onChange={(event) => setDraft({ place: event.target.value })}
          />
          <Button
            needs={lacking({
              "what comes off": draft.what.trim() === "",
              "how many": !(Number.isInteger(count) && count > 0),
            })}
            onClick={add}
          >
            It is off
          </Button>
        </div>
      )}
      <AsBefore job={job} put={put} />
      {log.length === 0 && <p className="text-faint">Nothing came off yet.</p>}
      {log.length > 0 && (
        <>
          <p>
            Last off, first on.{" "}
            {record.removed_left ? `${record.removed_left} pieces are off.` : "Everything is back on."}
          </p>
          <Tally pieces={log.map(([, piece]) => piece)} />
          <ol className="border-t border-rule">
            {log.map(([id, piece]) => (
              <li key={id} className="flex flex-wrap items-center gap-3 border-b border-rule py-1.5">
                <label className="flex min-h-11 items-center gap-3">
                  <input
                    type="checkbox"
                    className="size-6 shrink-0"
                    disabled={job.closed}
                    checked={piece.back}
                    onChange={(event) =>
                      void put({ target: `removed.${id}`, after: { ...bare(piece), back: event.target.checked } })
                    }
                  />
                  <span>
                    {piece.count} × {piece.what}{" "}
                    <span className="text-faint">
                      ({piece.kind}
                      {piece.place && `, ${piece.place}`})
                    </span>
                  </span>
                </label>
                <span className="text-faint">{piece.back ? "back on" : "off"}</span>
                {!job.closed && (
                  <Button
                    kind="quiet"
                    aria-label={`Strike out: ${piece.what}`}
                    onClick={() => void put({ target: `removed.${id}`, after: null })}
                  >
                    Strike out
                  </Button>
                )}
              </li>
            ))}
          </ol>
        </>
      )}
    </>
  );
}

/** What came off against what is back on, kind by kind: plugs off must equal plugs on, and leftovers have a name. */
function Tally({ pieces }: { pieces: Piece[] }) {
  const kinds = [...new Set(pieces.map((piece) => piece.kind))];
  const sum = (kind: string, back: boolean) =>
    pieces.filter((piece) => piece.kind === kind && (piece.back || !back)).reduce((all, piece) => all + piece.count, 0);
  return (
    <ul className="flex flex-wrap gap-x-4">
      {kinds.map((kind) => (
        <li key={kind} className={sum(kind, true) < sum(kind, false) ? "font-semibold" : ""}>
          {kind}: {sum(kind, false)} off, {sum(kind, true)} back on
        </li>
      ))}
    </ul>
  );
}

function bare({ what, kind, count, place, back }: Piece) {
  return { what, kind, count, place, back };
}

/** What came off the last time, piece by piece: a tap says that it is off here too. */
function AsBefore({ job, put }: StepProps) {
  const way = useWayIn(job).data;
  if (job.closed || job.energised || !way || way.pieces.length === 0) return null;
  return (
    <section aria-label="As it was taken apart before" className="flex flex-col gap-1">
      <p className="text-faint">As in {way.of}: a tap says that it is off.</p>
      <p className="flex flex-wrap gap-2">
        {way.pieces.map((piece) => (
          <Button
            key={`${piece.kind} ${piece.what}`}
            onClick={() => void put({ target: `removed.${newId()}`, after: piece })}
          >
            {piece.count > 1 && `${piece.count} × `}
            {piece.what}
            {piece.place && <span className="text-faint">, {piece.place}</span>}
          </Button>
        ))}
      </p>
    </section>
  );
}
