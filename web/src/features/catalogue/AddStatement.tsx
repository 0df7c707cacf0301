import { useSession } from "@/api/session";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { Choice, TextField } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { isTypedAt, useTypedForm } from "@/ui/typed";
import { useAddStatement } from "./api";

const RELATIONS = [
  ["supersedes", "it is the successor of"],
  ["same", "it is the same as"],
  ["universal", "it is a universal board for"],
  ["kit", "it is a kit for"],
  ["not exchangeable", "it must not go in instead of"],
] as const;
const FIELDS = [
  { name: "original", label: "The other board", className: "font-mono", maxLength: 640 },
  { name: "when", label: "Where", hint: "such as made>=2001; fuel=gas|oil", maxLength: 2000 },
  { name: "needs", label: "It needs", hint: "with ; between", maxLength: 2000 },
  { name: "source", label: "Where this is from", hint: "title, page and date", maxLength: 2000 },
] as const;
const EMPTY = { relation: "supersedes", original: "", when: "", needs: "", source: "" };

/** One cross-reference, a line of a leaflet: this board, what it is to another, under which conditions. */
export function AddStatement({ partNumber }: { partNumber: string }) {
  const session = useSession();
  const add = useAddStatement();
  const { fields, set, done } = useTypedForm("another cross-reference", EMPTY);
  if (!session.data?.keeps_catalogue) return null;
  return (
    <details open={isTypedAt("another cross-reference") || undefined}>
      <summary className="min-h-11 py-2.5">Another cross-reference</summary>
      <form
        aria-label="Another cross-reference"
        className="grid gap-3 pb-3 sm:grid-cols-2"
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate({ ...fields, replacement: partNumber, words: "" }, { onSuccess: done });
        }}
      >
        <Choice label={partNumber} value={fields.relation} onChange={(event) => set({ relation: event.target.value })}>
          {RELATIONS.map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </Choice>
        {FIELDS.map(({ name, ...field }) => (
          <TextField
            key={name}
            {...field}
            value={fields[name]}
            onChange={(event) => set({ [name]: event.target.value })}
          />
        ))}
        <ProblemNotice problem={add.error} />
        <Button
          type="submit"
          className="self-end justify-self-start"
          needs={lacking({ "the old board’s number": !fields.original.trim() })}
          disabled={add.isPending}
        >
          Add it
        </Button>
      </form>
    </details>
  );
}
