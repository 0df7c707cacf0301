import { newId } from "@/api/ids";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { useEffect, useState } from "react";
import { meant, useCount, type Difference, type PieceHeld } from "./api";
import { CodeReader } from "./CodeReader";
import { readsCodes } from "./codes";
import { counted, keepCount, keptCount, type Counted } from "./counting";

type Props = { van: string; held: PieceHeld[]; whole: boolean; onEnd: () => void };

/** Count a shelf by typing numbers or reading the codes on boxes: each time one is read it counts one more. */
export function CountShelf({ van, held, whole, onEnd }: Props) {
  const [count, setCount] = useState<Counted>(() => keptCount(van) ?? { id: newId(), pieces: {} });
  const [text, setText] = useState("");
  const [asking, setAsking] = useState<{ text: string; may: string[] } | null>(null);
  const [reading, setReading] = useState(false);
  const [told, setTold] = useState<Difference[] | null>(null);
  const send = useCount(van);
  useEffect(() => keepCount(van, count), [van, count]);
  const add = (piece: string, change = 1) => {
    // a reader is quicker than an answer: each counts upon what stands then
    setCount((was) => counted(was, piece, change));
    setAsking(null);
  };
  /** A number as it stands on the shelf's list, or as the catalogue has it; where it may be several, somebody says which. */
  const read = async (said: string) => {
    const name = said.trim();
    if (!name) return;
    setText("");
    const known = [...held.map((each) => each.piece), ...Object.keys(count.pieces)];
    const here = known.find((each) => each.toLowerCase() === name.toLowerCase());
    if (here) return add(here);
    const may = await meant(name).catch(() => []);
    if (may.length === 1 && may[0]) return add(may[0]);
    setAsking({ text: name, may });
  };
  const end = () => {
    onEnd();
    keepCount(van, null);
  };
  const pieces = Object.entries(count.pieces).map(([piece, number]) => ({ piece, count: number }));
  const uncounted = held.filter((each) => each.count > 0 && !(each.piece in count.pieces));

  if (told) return <Differences told={told} onEnd={end} />;
  return (
    <section aria-label="Count" className="flex flex-col gap-4">
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void read(text);
        }}
      >
        <div className="min-w-0 grow">
          <TextField
            label="Number or code"
            hint="Type it, or read the code on the box: each counts one more."
            className="font-mono"
            value={text}
            maxLength={200}
            autoFocus
            autoComplete="off"
            onChange={(event) => setText(event.target.value)}
          />
        </div>
        <Button type="submit" kind="main" needs={lacking({ "what was counted": !text.trim() })}>
          One of these
        </Button>
        {readsCodes() && !reading && <Button onClick={() => setReading(true)}>Read with the camera</Button>}
      </form>
      {reading && <CodeReader onCode={(code) => void read(code)} onEnd={() => setReading(false)} />}
      {asking && <WhichOne asking={asking} onPick={(piece) => add(piece)} onLeave={() => setAsking(null)} />}
      <ul aria-label="Counted" className="border-t border-rule">
        {pieces.map((each) => (
          <li key={each.piece} className="flex items-center gap-3 border-b border-rule py-2">
            <span className="grow font-mono font-semibold wrap-anywhere">{each.piece}</span>
            <Button aria-label={`One ${each.piece} less`} onClick={() => add(each.piece, -1)}>
              −
            </Button>
            <output aria-label={`${each.piece} counted`} className="min-w-8 text-center font-mono text-2xl">
              {each.count}
            </output>
            <Button aria-label={`One ${each.piece} more`} onClick={() => add(each.piece)}>
              +
            </Button>
          </li>
        ))}
      </ul>
      {uncounted.length > 0 && (
        <p className="text-faint">
          Not counted yet: <span className="font-mono">{uncounted.map((each) => each.piece).join(", ")}</span>
        </p>
      )}
      <ProblemNotice problem={send.error} />
      <div className="flex flex-wrap gap-3">
        {whole && (
          <Button
            kind="main"
            disabled={pieces.length === 0 || send.isPending}
            onClick={() => send.mutate({ id: count.id, pieces, whole: true }, { onSuccess: setTold })}
          >
            That is the whole shelf{uncounted.length > 0 && "; the rest is not there"}
          </Button>
        )}
        <Button
          disabled={pieces.length === 0 || send.isPending}
          onClick={() => send.mutate({ id: count.id, pieces, whole: false }, { onSuccess: setTold })}
        >
          Only these were counted
        </Button>
        <Button kind="quiet" onClick={end}>
          Leave the count
        </Button>
      </div>
    </section>
  );
}

function WhichOne({
  asking,
  onPick,
  onLeave,
}: {
  asking: { text: string; may: string[] };
  onPick: (piece: string) => void;
  onLeave: () => void;
}) {
  return (
    <div role="group" aria-label="Which one is it" className="flex flex-col gap-2 border-l-4 border-text pl-4">
      <p>
        {asking.may.length === 0
          ? `No board of the catalogue is marked ${asking.text}.`
          : `${asking.text} may be one of these. Which one is it?`}
      </p>
      <div className="flex flex-wrap gap-2">
        {asking.may.map((piece) => (
          <Button key={piece} className="font-mono" onClick={() => onPick(piece)}>
            {piece}
          </Button>
        ))}
        <Button onClick={() => onPick(asking.text)}>Count it as {asking.text}</Button>
        <Button kind="quiet" onClick={onLeave}>
          None of these
        </Button>
      </div>
    </div>
  );
}

/** What the count found otherwise than it was written down. */
function Differences({ told, onEnd }: { told: Difference[]; onEnd: () => void }) {
  return (
    <section aria-label="What was found otherwise" className="flex flex-col gap-3">
      <h2>{told.length === 0 ? "As it was written down" : "Found otherwise"}</h2>
      <ul className="border-t border-rule">
        {told.map((each) => (
          <li key={each.piece} className="flex justify-between gap-3 border-b border-rule py-2">
            <span className="font-mono">{each.piece}</span>
            <span>
              {each.was} by the list, <strong>{each.now}</strong> on the shelf
            </span>
          </li>
        ))}
      </ul>
      <Button kind="main" className="self-start" onClick={onEnd}>
        To the list
      </Button>
    </section>
  );
}
