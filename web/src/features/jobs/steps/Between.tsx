import type { Schemas } from "@/api/client";
import { newId } from "@/api/ids";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { Choice, TextField } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { useKeptState } from "@/ui/typed";
import { useState } from "react";
import { useBetween } from "../earlyApi";
import { RefusalAt } from "../entries/Refusal";
import type { StepProps } from "../stepProps";

type Row = Schemas["LeadShown"];
type Board = Schemas["EndSaid"]["board"];

/** The wires from one board of the machine to another: where each was, and where it goes once both are exchanged. */
export function Between({ job, put, adds = false }: StepProps & { adds?: boolean }) {
  const found = useBetween(job);
  if (!job.together) return null;
  if (!found.data) return <ProblemNotice problem={found.error} />;
  return (
    <div className="flex flex-col gap-3">
      {found.data.between.length === 0 ? (
        <p className="text-faint">No wire between the boards is recorded.</p>
      ) : (
        <ul aria-label="Wires between the boards" className="flex flex-col">
          {found.data.between.map((row) => (
            <li key={row.id} className="flex flex-wrap items-center gap-x-3 border-b border-rule py-1">
              <Ends row={row} />
              {row.wrong.map((wrong) => (
                <strong key={wrong} className="order-last basis-full">
                  {row.ends[0]?.title} {row.ends[0]?.place}: {wrong}
                </strong>
              ))}
              {adds && !job.closed && (
                <Button
                  kind="quiet"
                  aria-label={`Take out the wire from ${row.ends.map((end) => `${end.title} ${end.place}`).join(" to ")}`}
                  onClick={() => void put({ target: `between.${row.id}`, after: null })}
                >
                  Take out
                </Button>
              )}
            </li>
          ))}
        </ul>
      )}
      {adds && !job.closed && <AddWire job={job} put={put} places={found.data.places} />}
    </div>
  );
}

function Ends({ row }: { row: Row }) {
  return (
    <p className="flex grow flex-wrap items-baseline gap-x-3">
      {row.ends.map((end, at) => (
        <span key={end.board} className="flex flex-wrap items-baseline gap-x-2">
          {at > 0 && <span aria-hidden="true">⟷</span>}
          <span>{end.title}</span>
          <span className="font-mono text-original">{end.place}</span>
          {end.new && (
            <>
              <span aria-label="goes to">→</span>
              <span className="font-mono text-replacement">{end.new.join(", ") || "tied back"}</span>
            </>
          )}
          <span className="text-sm text-faint">{end.carries}</span>
        </span>
      ))}
      {row.what && <span className="text-faint">{row.what}</span>}
    </p>
  );
}

function AddWire({ job, put, places }: StepProps & { places: Schemas["WiresBetween"]["places"] }) {
  const sheets = job.together?.sheets ?? [];
  const here = sheets.find((each) => each.id === job.id)?.board ?? "1";
  const others = sheets.filter((each) => each.board !== here);
  const [far, setFar] = useState(others[0]?.board ?? "");
  const [place, setPlace] = useKeptState("between place", "");
  const [end, setEnd] = useKeptState("between end", "");
  const [what, setWhat] = useKeptState("between what", "");
  const [id, setId] = useState(newId);
  const titles = new Map(sheets.map((each) => [each.board, each.title]));
  const keep = async () => {
    const one = { board: here as Board, place: place.trim() };
    const other = { board: far as Board, place: end.trim() };
    const after = { one, other, ...(what.trim() ? { what: what.trim() } : {}) };
    if (!(await put({ target: `between.${id}`, after }))) return;
    setPlace("");
    setEnd("");
    setWhat("");
    setId(newId());
  };
  return (
    <div className="flex flex-col gap-3">
      <div className="grid gap-3 sm:grid-cols-2">
        <PlaceField
          label={`Here, on ${titles.get(here)}`}
          places={places[here] ?? null}
          value={place}
          onChange={setPlace}
        />
        {others.length > 1 && (
          <Choice label="To which board" value={far} onChange={(event) => (setFar(event.target.value), setEnd(""))}>
            {others.map((each) => (
              <option key={each.board} value={each.board}>
                {each.title}
              </option>
            ))}
          </Choice>
        )}
        <PlaceField label={`There, on ${titles.get(far)}`} places={places[far] ?? null} value={end} onChange={setEnd} />
        <TextField
          label="What it is"
          hint="such as: grey lead, shielded"
          maxLength={200}
          value={what}
          onChange={(event) => setWhat(event.target.value)}
        />
      </div>
      <RefusalAt target={`between.${id}`} />
      <Button
        className="self-start"
        needs={lacking({ "both ends": !place.trim() || !end.trim() })}
        onClick={() => void keep()}
      >
        Keep this wire between the boards
      </Button>
    </div>
  );
}

type PlaceProps = { label: string; places: string[] | null; value: string; onChange: (place: string) => void };

/** A plug (a whole lead) or a pin: chosen where the board's profile knows them, else typed. */
function PlaceField({ label, places, value, onChange }: PlaceProps) {
  if (!places)
    return (
      <TextField
        label={label}
        hint="a plug, such as C3, or a pin, such as C3.2"
        maxLength={80}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    );
  return (
    <Choice label={label} value={value} onChange={(event) => onChange(event.target.value)}>
      <option value="">choose</option>
      {places.map((each) => (
        <option key={each} value={each}>
          {each.includes(".") ? each : `${each}, the whole lead`}
        </option>
      ))}
    </Choice>
  );
}
