import type { Schemas } from "@/api/client";
import { WireSwatch } from "@/drawing/Lead";
import { PlugFace } from "@/drawing/PlugFace";
import { Button } from "@/ui/Button";
import { useState } from "react";
import type { StepProps } from "../../stepProps";
import { Segments } from "@/ui/Segments";
import { WireSheet } from "./WireSheet";

type Props = StepProps & { record: Schemas["RecordShown"] };
type Plug = Schemas["PlugShown"];

const WAYS_OUT = [
  ["was wired wrong", "Was wired wrong"],
  ["machine was modified", "Machine was modified"],
] as const;
const NO_WIRE = ["no wire was there", "No wire was there"] as const;
const WAYS: Record<string, string> = {
  whole: "moves whole",
  "one by one": "moves wire by wire, ticked off under Fit as they move",
};

/** Every plug: whole where it is keyed, else wire by wire, entered by tapping its pins. */
export function WiresPart({ job, put, record }: Props) {
  const [pin, setPin] = useState<{ plug: string; pin: string } | null>(null);
  const keyed = record.plugs.filter(
    (plug) => plug.complete && !plug.way && plug.pins.every((each) => !each.wires.length),
  );
  return (
    <>
      {!job.closed && keyed.length > 0 && (
        <div>
          <Button onClick={() => keyed.forEach((plug) => void put({ target: `plug.${plug.id}`, after: "whole" }))}>
            Keyed plugs move whole: {keyed.map((plug) => plug.id).join(", ")}
          </Button>
          <p className="text-sm text-faint">
            Each of them goes in one way only; their wires need no record unless something looks changed.
          </p>
        </div>
      )}
      {record.plugs.map((plug) => (
        <PlugTable
          key={plug.id}
          plug={plug}
          job={job}
          put={put}
          onPin={(name) => setPin({ plug: plug.id, pin: name })}
        />
      ))}
      <Findings job={job} put={put} findings={record.findings} />
      {Object.keys(job.wires).length > 0 && (
        <p>
          <a href={`/api/jobs/${job.id}/tags.pdf`}>Print tags for the wires</a>
        </p>
      )}
      {pin && (
        <WireSheet
          key={`${pin.plug}.${pin.pin}`}
          job={job}
          put={put}
          plug={pin.plug}
          pin={pin.pin}
          signals={record.signals}
          carries={record.plugs.some(
            (plug) => plug.id === pin.plug && plug.pins.some((each) => each.pin === pin.pin && each.carries !== null),
          )}
          onClose={() => setPin(null)}
          onNext={() => setPin(following(record.plugs, pin))}
        />
      )}
    </>
  );
}

function following(plugs: Plug[], now: { plug: string; pin: string }) {
  const pins = plugs.find((each) => each.id === now.plug)?.pins ?? [];
  const next = pins[pins.findIndex((each) => each.pin === now.pin) + 1];
  return next ? { plug: now.plug, pin: next.pin } : null;
}

function PlugTable({ plug, job, put, onPin }: StepProps & { plug: Plug; onPin: (pin: string) => void }) {
  const recorded = plug.pins.some((pin) => pin.wires.length > 0);
  return (
    <section aria-label={`Plug ${plug.id}`}>
      <h4 className="flex flex-wrap items-baseline gap-x-3">
        <span className="font-mono text-lg font-semibold">{plug.id}</span>
        <span className="text-faint">
          {plug.style}{" "}
          {!plug.keyed
            ? "not keyed: record its wires"
            : plug.complete || recorded
              ? "keyed, goes in one way"
              : "keyed, but the new board does not take it complete: its wires come out of it"}
        </span>
        {plug.way && <strong>{WAYS[plug.way]}</strong>}
        {plug.way && !job.closed && (
          <Button kind="quiet" onClick={() => void put({ target: `plug.${plug.id}`, after: null })}>
            Record its wires instead
          </Button>
        )}
        {!plug.way && plug.complete && !recorded && !job.closed && (
          <Button kind="quiet" onClick={() => void put({ target: `plug.${plug.id}`, after: "whole" })}>
            {plug.id} moves whole
          </Button>
        )}
        {!plug.way && plug.keyed && !plug.complete && plug.offered && !recorded && !job.closed && (
          <Button
            kind="quiet"
            onClick={() => {
              void put({ target: `plug_put.${plug.id}`, after: { to: plug.offered ?? "" } }).then(
                (taken) => taken && put({ target: `plug.${plug.id}`, after: "whole" }),
              );
            }}
          >
            Same plug, same pins: move {plug.id} complete onto {plug.offered}
          </Button>
        )}
        {!plug.way && plug.one_by_one && !recorded && !job.closed && (
          <Button kind="quiet" onClick={() => void put({ target: `plug.${plug.id}`, after: "one by one" })}>
            {plug.id}: wire by wire, straight to the new board
          </Button>
        )}
      </h4>
      {!plug.way && <PlugFace {...plug} />}
      {!plug.way && (
        <ul className="mt-1 grid gap-2 sm:grid-cols-2">
          {plug.pins.map((pin) => {
            const wires = pin.wires.map((id) => job.wires[id]).filter((wire) => wire !== undefined);
            return (
              <li key={pin.pin}>
                <button
                  type="button"
                  className="flex min-h-12 w-full items-baseline gap-3 border border-original bg-original-wash px-3 py-2 text-left"
                  onClick={() => onPin(pin.pin)}
                >
                  <span className="w-8 font-mono text-lg font-semibold">
                    <span className="sr-only">{plug.id} pin </span>
                    {pin.pin}
                  </span>
                  <span className="font-mono">{pin.mark}</span>
                  <span className="grow text-sm">{pin.title}</span>
                  <span className="flex flex-wrap items-center justify-end gap-x-2 font-mono text-sm">
                    {wires.map((wire, index) => (
                      <WireSwatch key={index} colour={wire.colour ?? ""} />
                    ))}
                    {wires.map((wire) => [wire.tag, wire.colour].filter(Boolean).join(" ") || "wire").join(", ")}
                    {wires.length === 0 && <span className="sr-only">no wire yet</span>}
                  </span>
                </button>
              </li>
            );
          })}
        </ul>
      )}
    </section>
  );
}

/** Where the wires differ from the diagram: the diagram wins over a picture, and a difference is settled by a person. */
function Findings({ job, put, findings }: StepProps & { findings: Schemas["FindingShown"][] }) {
  const open = findings.filter((finding) => finding.missing && !finding.settled);
  const told = findings.filter((finding) => !finding.missing || finding.settled);
  return (
    <>
      {open.length > 0 && (
        <p>
          No wire recorded yet on <span className="font-mono">{open.map((each) => each.place).join(", ")}</span>. Tap a
          pin to enter its wire, or to say that none was there.
        </p>
      )}
      {told.length > 0 && (
        <section aria-label="Against the wiring diagram" className="border-l-4 border-text pl-3">
          <h4 className="font-semibold">Against the wiring diagram</h4>
          <ul className="flex flex-col gap-3">
            {told.map((finding) => (
              <li key={finding.place} className="flex flex-col gap-1">
                <p>
                  <span className="font-mono">{finding.place}</span>: {finding.words}
                </p>
                <Segments
                  label={`${finding.place} is settled as`}
                  choices={finding.missing ? [...WAYS_OUT, NO_WIRE] : WAYS_OUT}
                  value={finding.settled}
                  disabled={job.closed}
                  onChange={(value) => void put({ target: `settled.${finding.place}`, after: { as: value, note: "" } })}
                />
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
