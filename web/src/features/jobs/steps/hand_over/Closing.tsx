import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextArea } from "@/ui/fields";
import { useKeptState } from "@/ui/typed";
import type { StepProps } from "../../stepProps";
import { NoteAndConfirm } from "../NoteAndConfirm";

/** The end: handed over by one, and where the depot asks for it signed by a second person, or sent back with a reason. */
export function Closing({ job, put, over }: StepProps & { over: Schemas["HandOverShown"] }) {
  const [note, setNote] = useKeptState("closing note", "");
  const sign = (ok: boolean) =>
    void put({ target: "signed", after: { ok, note: note.trim() }, again: true }).then((taken) => taken && setNote(""));
  return (
    <>
      {over.refused.map((each) => (
        <p key={each.at} role="note" className="border-l-4 border-text bg-raised px-4 py-3">
          <strong>Sent back by {each.by}:</strong> {each.note}
        </p>
      ))}
      {job.signed && (
        <p>
          Signed by {String(job.signed.by)}
          {job.signed.note ? `: ${String(job.signed.note)}` : ""}.
        </p>
      )}
      {!job.closed && !over.handed_by && (
        <>
          <NoteAndConfirm
            job={job}
            put={put}
            step="hand_over"
            label="Anything the next person should know"
            confirm={over.second_person ? "Hand over for a second person to sign" : "Close the job"}
          />
          <p className="text-sm text-faint">
            {over.second_person
              ? "A second person looks through it and signs; after that nothing in it changes any more."
              : "After that nothing in it changes any more; a correction is a new entry beside it."}
          </p>
        </>
      )}
      {!job.closed && over.handed_by && (
        <section aria-label="Second person" className="flex flex-col gap-3 border-2 border-text p-4">
          <p className="font-semibold">Handed over by {over.handed_by}. A second person signs.</p>
          {over.may_sign ? (
            <>
              <TextArea
                label="What you looked at, or what is to be put right"
                maxLength={2000}
                value={note}
                onChange={(event) => setNote(event.target.value)}
              />
              <div className="flex flex-wrap gap-2">
                <Button kind="main" onClick={() => sign(true)}>
                  Sign and close the job
                </Button>
                <Button needs={lacking({ "what is to be put right": !note.trim() })} onClick={() => sign(false)}>
                  Send it back with this reason
                </Button>
              </div>
            </>
          ) : (
            <>
              <p>Whoever handed it over does not sign it.</p>
              <Button
                className="self-start"
                onClick={() => void put({ target: "confirmed.hand_over", after: null, again: true })}
              >
                Take the hand-over back
              </Button>
            </>
          )}
        </section>
      )}
    </>
  );
}
