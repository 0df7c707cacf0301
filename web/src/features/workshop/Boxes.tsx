import { useKeptState } from "@/ui/typed";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { useState } from "react";
import { useGive, useLookInto, useTakeIn } from "./boxApi";

/** Boards given to another depot, and taken in from one: each line beside what is here. */
export function Boxes() {
  const [numbers, setNumbers] = useKeptState("boards to give", "");
  const [file, setFile] = useState<{ name: string; text: string } | null>(null);
  const [left, setLeft] = useState<string[]>([]);
  const give = useGive();
  const look = useLookInto();
  const take = useTakeIn();
  const lines = look.data?.lines ?? [];
  const chosen = lines.filter((each) => each.can_be_taken && !left.includes(each.name)).map((each) => each.name);
  const load = (given: File) =>
    void given.text().then((text) => {
      setFile({ name: given.name, text });
      setLeft([]);
      take.reset();
      look.mutate(text);
    });
  return (
    <details className="border-t border-rule">
      <summary className="min-h-12 py-3 font-semibold">Boards to and from another depot</summary>
      <div className="grid gap-x-10 gap-y-5 pb-4 desk:grid-cols-2">
        <form
          aria-label="Give boards"
          className="flex flex-col gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            give.mutate(
              numbers
                .split(",")
                .map((each) => each.trim())
                .filter(Boolean),
            );
          }}
        >
          <TextField
            label="Give these boards"
            hint="numbers with commas between; their kinds of machine, sources and standings go along"
            className="font-mono"
            maxLength={4000}
            value={numbers}
            onChange={(event) => setNumbers(event.target.value)}
          />
          <ProblemNotice problem={give.error} />
          <Button
            type="submit"
            className="self-start"
            needs={lacking({ "the numbers": !numbers.trim() })}
            disabled={give.isPending}
          >
            Save them as one file
          </Button>
        </form>
        <section aria-label="Take boards in" className="flex flex-col gap-3">
          <label className="flex flex-col gap-1 font-semibold">
            A file from another depot
            <input
              type="file"
              accept=".json,application/json"
              className="min-h-12 font-normal"
              onChange={(event) => event.target.files?.[0] && load(event.target.files[0])}
            />
          </label>
          <ProblemNotice problem={look.error ?? take.error} />
          {look.data && (
            <>
              <p>From {look.data.sender || "a depot that does not say its name"}:</p>
              <ul className="border-t border-rule">
                {lines.map((each) => (
                  <li key={`${each.kind} ${each.name}`} className="border-b border-rule py-2">
                    <label className="flex items-start gap-3">
                      <input
                        type="checkbox"
                        className="mt-1.5 size-5"
                        disabled={!each.can_be_taken}
                        checked={chosen.includes(each.name)}
                        onChange={(event) =>
                          setLeft(
                            event.target.checked ? left.filter((name) => name !== each.name) : [...left, each.name],
                          )
                        }
                      />
                      <span>
                        <span className="font-mono font-semibold">{each.name}</span> {each.title}
                        <span className="block text-sm text-faint">
                          {each.words}
                          {each.standing && `. Its settings: ${each.standing}`}
                        </span>
                      </span>
                    </label>
                  </li>
                ))}
              </ul>
              {take.data ? (
                <p role="status">Taken in: {take.data.names.join(", ")}.</p>
              ) : (
                <Button
                  kind="main"
                  className="self-start"
                  disabled={chosen.length === 0 || take.isPending}
                  onClick={() => file && take.mutate({ text: file.text, names: chosen })}
                >
                  Take {chosen.length} in
                </Button>
              )}
            </>
          )}
        </section>
      </div>
    </details>
  );
}
