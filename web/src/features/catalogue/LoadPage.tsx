import { Problem } from "@/api/client";
import { Button } from "@/ui/Button";
import { TextArea } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { useLoad } from "./api";
import { Guides } from "./Guides";

/** Load a board, family or guide file; what is wrong in it is shown beside its place, and nothing of it is kept. */
export function LoadPage() {
  const [text, setText] = useState("");
  const load = useLoad();
  const faults = load.error instanceof Problem ? load.error.faults : [];
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-5 px-4 py-6">
      <h1>Load a file</h1>
      <p>
        A board, a family, rule-out data or nameplate schemes, in the product’s own formats. What is there already gets
        a new revision; jobs keep the revision that they used.
      </p>
      <div className="flex flex-col gap-1">
        <label htmlFor="file" className="font-semibold">
          File
        </label>
        <input
          id="file"
          type="file"
          accept=".json,application/json"
          className="min-h-11 border border-edge bg-raised p-2"
          onChange={async (event) => {
            const file = event.target.files?.[0];
            if (file) setText(await file.text());
            load.reset();
          }}
        />
      </div>
      <TextArea
        label="Its text"
        rows={12}
        className="font-mono text-sm"
        spellCheck={false}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <div className="flex flex-wrap gap-3">
        <Button disabled={load.isPending} onClick={() => load.mutate({ text, keep: false })}>
          Only check it
        </Button>
        <Button kind="main" disabled={load.isPending} onClick={() => load.mutate({ text, keep: true })}>
          Load it
        </Button>
      </div>
      <ProblemNotice problem={load.error} />
      {faults.length > 0 && <FaultyLines text={text} places={faults.map((fault) => fault.place)} />}
      {load.data && (
        <div role="status" className="border-l-4 border-text bg-raised px-4 py-3">
          <p className="font-semibold">
            {load.variables.keep
              ? load.data.new
                ? "Loaded"
                : "Nothing to do: it is there already, letter for letter"
              : "Nothing wrong in it"}
          </p>
          <p>
            {load.data.kind} {load.data.name}, revision {load.data.revision}
            {!load.variables.keep && load.data.new && " if it were loaded"}
          </p>
          {load.data.warnings.map((warning) => (
            <p key={warning.place}>
              <code className="font-mono text-sm">{warning.place}</code>: {warning.expected}
            </p>
          ))}
          {load.variables.keep && load.data.kind === "board" && (
            <Link to="/catalogue/$partNumber" params={{ partNumber: load.data.name }}>
              See {load.data.name}
            </Link>
          )}
        </div>
      )}
      <Guides />
    </main>
  );
}

/** The lines of the text that name the last part of a faulty place. */
function FaultyLines({ text, places }: { text: string; places: string[] }) {
  const lines = text.split("\n");
  const found = places.flatMap((place) => {
    const names = place.split(/[.[\]]+/).filter((part) => part && !/^\d+$/.test(part));
    let at = -1;
    for (const name of names) {
      const next = lines.findIndex((line, index) => index >= Math.max(at, 0) && line.includes(`"${name}"`));
      if (next >= 0) at = next;
    }
    return at >= 0 ? [{ place, at }] : [];
  });
  if (found.length === 0) return null;
  return (
    <ul aria-label="Lines to look at" className="overflow-x-auto bg-raised p-3 font-mono text-sm" tabIndex={0}>
      {found.map(({ place, at }) => (
        <li key={place}>
          <span className="text-faint">line {at + 1}</span> {lines[at]?.trim().slice(0, 100)}
        </li>
      ))}
    </ul>
  );
}
