import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { InkMark, SideName, type Side } from "@/ui/inks";
import { ProblemNotice } from "@/ui/notices";
import { useDeferredValue, useState } from "react";
import { useBoardsLike } from "./api";

type Props = { side: Side; value: string; family?: string; disabled?: boolean; onPick: (partNumber: string) => void };

/** Any board of the catalogue, found by typing a part of its number, title or maker. */
export function BoardPicker({ side, value, family, disabled = false, onPick }: Props) {
  const [text, setText] = useState("");
  const [asked, setAsked] = useState(false);
  const searching = asked || value === "";
  const boards = useBoardsLike(useDeferredValue(text.trim()), family, searching && !disabled);
  const pick = (partNumber: string) => {
    setText("");
    setAsked(false);
    onPick(partNumber);
  };
  const items = boards.data?.items ?? [];
  const more = (boards.data?.total ?? 0) - items.length;
  return (
    <section aria-label={side === "original" ? "Original" : "Replacement"} className="flex flex-col gap-2">
      <p className="flex min-h-11 flex-wrap items-center gap-3">
        <SideName side={side} />
        {value && <InkMark side={side}>{value}</InkMark>}
        {value && !searching && (
          <Button kind="quiet" onClick={() => setAsked(true)}>
            Another board
          </Button>
        )}
      </p>
      {searching && (
        <>
          <TextField
            label={side === "original" ? "Find the original" : "Find the replacement"}
            hint="number, title or maker, or a part of one"
            type="search"
            autoComplete="off"
            spellCheck={false}
            maxLength={80}
            disabled={disabled}
            value={text}
            onChange={(event) => setText(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === "Enter" && items[0]) pick(items[0].part_number);
            }}
          />
          <ProblemNotice problem={boards.error} />
          {!disabled && (
            <ul className="border-t border-rule">
              {items.map((each) => (
                <li key={each.part_number} className="border-b border-rule">
                  <button
                    type="button"
                    onClick={() => pick(each.part_number)}
                    className="flex min-h-11 w-full flex-wrap items-baseline gap-x-3 py-2 text-left hover:bg-raised"
                  >
                    <span className="font-mono font-semibold">{each.part_number}</span>
                    <span>{each.title}</span>
                    <span className="text-faint">{each.maker}</span>
                  </button>
                </li>
              ))}
              {boards.data && items.length === 0 && <li className="py-2 text-faint">No board is called so.</li>}
              {more > 0 && <li className="py-2 text-sm text-faint">and {more} more; type more of it</li>}
            </ul>
          )}
        </>
      )}
    </section>
  );
}
