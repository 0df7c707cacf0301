import type { Schemas } from "@/api/client";
import { UNREADABLE, type Position } from "@/drawing/types";
import { Button } from "@/ui/Button";
import { InkMark } from "@/ui/inks";
import { useAssumable } from "../../earlyApi";
import type { StepProps } from "../../stepProps";

type Source = Schemas["AssumableShown"];

/** What cannot be read is taken to stand as somewhere else: all of it or one by one, said by whom and from where. */
export function Assume({ job, put }: StepProps) {
  const unreadable = Object.keys(job.found).filter((name) => String(job.found[name]).includes(UNREADABLE));
  const sources = useAssumable(job, unreadable.length > 0).data ?? [];
  if (unreadable.length === 0) return null;
  const assume = (source: Source, names: string[]) =>
    names.forEach((name) => {
      const after = { value: source.positions[name] as Position, source: source.source, of: source.of };
      void put({ target: `assumed.${name}`, after });
    });
  const open = unreadable.filter((name) => !job.assumed[name]);
  return (
    <section aria-label="What cannot be read" className="flex flex-col gap-3 border-l-4 border-text pl-3">
      {unreadable
        .flatMap((name) => (job.assumed[name] ? [{ name, ...job.assumed[name] }] : []))
        .map((each) => (
          <p key={each.name} className="flex flex-wrap items-center gap-2">
            <strong>Assumed, not read:</strong>
            <InkMark side="original">
              {each.name} {each.value}
            </InkMark>
            <span>
              {sources.find((one) => one.source === each.source && one.of === (each.of ?? ""))?.words ?? each.source} (
              {each.by})
            </span>
            {!job.closed && (
              <Button onClick={() => void put({ target: `assumed.${each.name}`, after: null })}>Not so</Button>
            )}
          </p>
        ))}
      {open.length > 0 && !job.closed && (
        <>
          <p>
            {open.join(", ")} cannot be read. It may be assumed, and stands so on every paper; what is proved then rests
            on it.
          </p>
          <ul>
            {sources.map((source) => (
              <SourceLine key={source.words} source={source} open={open} onAssume={(names) => assume(source, names)} />
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

type LineProps = { source: Source; open: string[]; onAssume: (names: string[]) => void };

function SourceLine({ source, open, onAssume }: LineProps) {
  const told = open.filter((name) => source.positions[name] !== undefined);
  if (told.length === 0) return null;
  return (
    <li className="flex flex-wrap items-center gap-2 border-b border-rule py-2">
      <span className="w-full">{source.words}</span>
      {told.map((name) => (
        <Button key={name} className="font-mono" onClick={() => onAssume([name])}>
          {name} {source.positions[name]}
        </Button>
      ))}
      {told.length > 1 && (
        <Button aria-label={`All of these: ${source.words}`} onClick={() => onAssume(told)}>
          All of these
        </Button>
      )}
    </li>
  );
}
