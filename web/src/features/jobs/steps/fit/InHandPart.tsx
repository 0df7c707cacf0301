import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { useKeptState } from "@/ui/typed";
import { RefusalAt } from "../../entries/Refusal";
import type { StepProps } from "../../stepProps";
import { Looks } from "./Looks";

/** What stands on the board that goes in, read before it is mounted; and which boards are easily taken for it. */
export function InHandPart({ job, put, fitting }: StepProps & { fitting: Schemas["FittingShown"] }) {
  const [number, setNumber] = useKeptState("in hand number", "");
  const [revision, setRevision] = useKeptState("in hand revision", "");
  const [serial, setSerial] = useKeptState("in hand serial", "");
  const said = job.in_hand;
  const looks = fitting.looks.filter((each) => each.group === "hand");
  const read = (text: string) => {
    const more = {
      ...(revision.trim() && { revision: revision.trim() }),
      ...(serial.trim() && { serial: serial.trim() }),
    };
    void put({ target: "in_hand", after: { number: text, ...more } }).then((taken) => {
      if (!taken) return;
      [setNumber, setRevision, setSerial].forEach((forget) => forget(""));
    });
  };
  return (
    <div className="flex flex-col gap-4">
      {said ? (
        <p className="flex flex-wrap items-center gap-x-4">
          <span>
            On it stands <span className="font-mono text-xl">{said.number}</span>
            {said.revision && `, revision ${said.revision}`}
            {said.serial && `, serial ${said.serial}`} <span className="text-faint">({said.by})</span>
          </span>
          {!job.closed && (
            <Button kind="quiet" onClick={() => void put({ target: "in_hand", after: null })}>
              Read it again
            </Button>
          )}
        </p>
      ) : (
        <>
          <p>
            Chosen: <span className="font-mono text-3xl">{job.replacement}</span>
          </p>
          <Alike alike={fitting.alike} />
          <div className="grid gap-3 sm:grid-cols-2">
            <TextField
              label="Its revision, where it bears one"
              maxLength={80}
              value={revision}
              onChange={(event) => setRevision(event.target.value)}
            />
            <TextField
              label="Its serial number"
              maxLength={80}
              value={serial}
              onChange={(event) => setSerial(event.target.value)}
            />
          </div>
          <Button kind="main" className="self-start" onClick={() => read(job.replacement ?? "")}>
            The board in my hand says {job.replacement}
          </Button>
          <details>
            <summary className="min-h-11 py-2.5">It says something else</summary>
            <div className="flex flex-col gap-3">
              <TextField
                label="What stands on it"
                className="font-mono"
                maxLength={80}
                value={number}
                onChange={(event) => setNumber(event.target.value)}
              />
              <Button
                className="self-start"
                needs={lacking({ "what stands on it": !number.trim() })}
                onClick={() => read(number.trim())}
              >
                Is that the one?
              </Button>
            </div>
          </details>
          <RefusalAt target="in_hand" />
        </>
      )}
      {looks.length > 0 && <Looks job={job} put={put} looks={looks} />}
    </div>
  );
}

/** Boards that look like the one that goes in. */
export function Alike({ alike }: { alike: Schemas["AlikeShown"][] }) {
  if (alike.length === 0) return null;
  return (
    <div role="note" className="border-l-4 border-text pl-3">
      <p className="font-semibold">Easily taken for it:</p>
      <ul>
        {alike.map((each) => (
          <li key={each.part_number}>
            <span className="font-mono">{each.part_number}</span> <span className="text-faint">({each.words})</span>
          </li>
        ))}
      </ul>
    </div>
  );
}
