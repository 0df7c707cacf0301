import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextArea } from "@/ui/fields";
import { useKeptState } from "@/ui/typed";
import type { StepProps } from "../stepProps";

type Props = StepProps & { step: string; label: string; confirm: string; needed?: boolean };

/** A note and the confirmation of a step; what is typed waits on this device until it is confirmed. */
export function NoteAndConfirm({ job, put, step, label, confirm, needed = false }: Props) {
  const state = job.steps.find((each) => each.id === step);
  const done = state?.state === "done";
  const [draft, type] = useKeptState(`note of ${step}`, "");
  const note = done ? (state.note ?? "") : draft;
  const send = () => {
    type("");
    void put({ target: `confirmed.${step}`, after: { note } });
  };
  const takeBack = () => {
    type(note);
    void put({ target: `confirmed.${step}`, after: null });
  };
  return (
    <>
      <TextArea
        label={label}
        value={note}
        maxLength={2000}
        disabled={job.closed || done}
        onChange={(event) => type(event.target.value)}
      />
      {!job.closed && !done && (
        <Button
          kind="main"
          className="self-start"
          needs={lacking({ "the reason": needed && !note.trim() })}
          onClick={send}
        >
          {confirm}
        </Button>
      )}
      {!job.closed && done && (
        <Button className="self-start" onClick={takeBack}>
          Take this confirmation back
        </Button>
      )}
    </>
  );
}
