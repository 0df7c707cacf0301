import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { ReadMarking } from "@/pictures/ReadMarking";
import { TextField } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { useDeferredValue, useState } from "react";
import { usePlates, useSerial } from "../api";
import type { StepProps } from "../stepProps";
import { Segments } from "@/ui/Segments";

/** The machine's number, place by place against the maker's scheme, and its serial number read back in groups. */
export function Nameplate({ job, put }: StepProps) {
  const [source, setSource] = useState("plate");
  const [text, setText] = useState("");
  const plates = usePlates(useDeferredValue(text), job.family);
  const best = text.trim().length > 1 ? plates.data?.[0] : undefined;
  return (
    <section aria-labelledby="plate" className="flex flex-col gap-3">
      <h3 id="plate">The machine’s nameplate</h3>
      {Object.entries(job.plates).map(([from, plate]) => (
        <p key={from}>
          From the {from}: <span className="font-mono text-lg">{plate.text}</span>{" "}
          {!job.closed && (
            <Button kind="quiet" onClick={() => void put({ target: `plate.${from}`, after: null })}>
              Take it back
            </Button>
          )}
        </p>
      ))}
      {!job.closed && (
        <>
          <Segments
            label="Taken from"
            choices={[
              ["plate", "taken from the plate"],
              ["display", "from the display"],
            ]}
            value={source}
            onChange={setSource}
          />
          <TextField
            label="Number on it"
            hint={
              source === "display"
                ? "The display may be wrong, or may have come with a donor board."
                : best?.example && `For example ${best.example}`
            }
            className="font-mono text-xl"
            value={text}
            maxLength={80}
            autoComplete="off"
            spellCheck={false}
            onChange={(event) => setText(event.target.value)}
          />
          <ReadMarking words="Read the plate from a picture" onUse={setText} />
          <ProblemNotice problem={plates.error} />
          {best && (
            <>
              <Places plate={best} />
              <Button
                kind={best.ok ? "main" : "plain"}
                className="self-start"
                onClick={() => {
                  void put({ target: `plate.${source}`, after: { text: text.trim(), scheme: best.scheme } });
                  setText("");
                }}
              >
                {best.ok ? "Keep this number" : "It stands so on the plate: keep it"}
              </Button>
            </>
          )}
          <Serial job={job} put={put} scheme={job.plates.plate?.scheme ?? best?.scheme ?? ""} />
        </>
      )}
      {job.closed && job.serial && (
        <p>
          Serial number <span className="font-mono text-lg">{job.serial}</span>
        </p>
      )}
    </section>
  );
}

/** Each place with its meaning, or what was expected there. */
export function Places({ plate }: { plate: Schemas["PlateShown"] }) {
  return (
    <div className="flex flex-col gap-2">
      <p className="text-faint">
        {plate.maker}, {plate.title} ({plate.source})
      </p>
      <ol className="border-t border-rule">
        {plate.places.map((place) => (
          <li key={place.id} className="grid grid-cols-[4.5rem_1fr] gap-x-3 border-b border-rule py-1.5">
            <span
              className={`font-mono text-lg ${place.ok ? "" : "font-bold underline decoration-wavy decoration-2 underline-offset-4"}`}
            >
              {place.text || "–"}
            </span>
            <span>
              <strong>{place.title}</strong>: {place.ok ? place.meaning : `expected ${place.expected}`}
              {place.perhaps && (
                <>
                  . Perhaps <span className="font-mono">{place.perhaps}</span>?
                </>
              )}
            </span>
          </li>
        ))}
      </ol>
      {plate.left_over && (
        <p>
          Left over: <span className="font-mono">{plate.left_over}</span>, for which this number has no place.
        </p>
      )}
      {plate.says.map((rule) => (
        <p key={rule.words} className="border-l-4 border-text pl-3">
          {rule.words}
        </p>
      ))}
    </div>
  );
}

function Serial({ job, put, scheme }: StepProps & { scheme: string }) {
  const [text, setText] = useState("");
  const serial = useSerial(useDeferredValue(text), scheme);
  const typed = text.trim().length > 1;
  const keep = (reason: string) => {
    void put({ target: "serial", after: text.trim(), reason });
    setText("");
  };
  return (
    <div className="flex flex-col gap-2">
      {job.serial && (
        <p>
          Serial number <span className="font-mono text-lg">{job.serial}</span>
        </p>
      )}
      <TextField
        label="Serial number of the machine"
        className="font-mono text-xl"
        value={text}
        maxLength={80}
        autoComplete="off"
        onChange={(event) => setText(event.target.value)}
      />
      {typed && serial.data && (
        <>
          <p aria-live="polite">
            Read it back:{" "}
            <span className="font-mono text-2xl tracking-wider">{serial.data.groups.join("\u2002") || "–"}</span>
          </p>
          {!serial.data.ok && <p className="font-semibold">Expected {serial.data.expected}.</p>}
          <Button
            kind={serial.data.ok ? "main" : "plain"}
            className="self-start"
            onClick={() => keep(serial.data?.ok ? "" : "stands so on the plate")}
          >
            {serial.data.ok ? "It reads the same: keep it" : "It stands so on the plate: keep it"}
          </Button>
        </>
      )}
    </div>
  );
}
