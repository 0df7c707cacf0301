import { useEffect, useRef, useState, type KeyboardEvent } from "react";
import { Button } from "@/ui/Button";
import { TypedPlaces } from "./TypedPlaces";
import { UNREADABLE, places, type EditorProps, type Side } from "./types";

/** A switch bank (or code) large: tap a slider, or arrow keys and space, or type the whole bank. */
export function BankEditor({ element, placed, value, side, unreadable = true, disabled, onChange }: EditorProps) {
  const marks = places(element, value);
  const [at, setAt] = useState(0);
  const buttons = useRef<(HTMLButtonElement | null)[]>([]);
  const dip = element.kind === "dip";
  const symbols = dip ? ["0", "1"] : element.values.map(String);
  const reversed = placed?.first === "right";
  const onTop = placed?.on_side !== "bottom";

  const locked = (index: number) => !unreadable && element.locked.includes(element.points[index] ?? "");
  // keys may come faster than the page is drawn: each builds on the one before, not on what is drawn
  const latest = useRef(marks);
  const shown = marks.join("");
  useEffect(() => {
    latest.current = [...shown];
  }, [shown]);
  const put = (index: number, mark: string) => {
    if (disabled || locked(index) || latest.current[index] === mark) return;
    latest.current = latest.current.map((old, i) => (i === index ? mark : old));
    onChange(latest.current.join(""));
  };
  const next = (mark: string) => symbols[(symbols.indexOf(mark) + 1) % symbols.length] ?? UNREADABLE;
  const go = (index: number) => {
    const target = Math.max(0, Math.min(marks.length - 1, index));
    setAt(target);
    buttons.current[target]?.focus();
  };
  const onKey = (event: KeyboardEvent, index: number) => {
    const forward = reversed ? "ArrowLeft" : "ArrowRight";
    const back = reversed ? "ArrowRight" : "ArrowLeft";
    if (event.key === forward) go(index + 1);
    else if (event.key === back) go(index - 1);
    else if (symbols.includes(event.key) || (unreadable && event.key === UNREADABLE)) {
      put(index, event.key);
      go(index + 1);
    } else if (dip && event.key === "ArrowUp") put(index, onTop ? "1" : "0");
    else if (dip && event.key === "ArrowDown") put(index, onTop ? "0" : "1");
    else return;
    event.preventDefault();
  };

  return (
    <div className="flex flex-col gap-3">
      <div
        role="group"
        aria-label={`${element.id} ${element.title}`}
        className={`flex w-fit max-w-full flex-wrap border-2 bg-raised p-1 ${side === "original" ? "rounded-none border-original" : "rounded-2xl border-replacement"} ${reversed ? "flex-row-reverse" : ""}`}
      >
        {marks.map((mark, index) => (
          <button
            key={index}
            type="button"
            ref={(node) => {
              buttons.current[index] = node;
            }}
            tabIndex={index === at ? 0 : -1}
            disabled={disabled}
            aria-label={`${element.points[index]} ${markWords(mark, dip)}${locked(index) ? ", locked" : ""}`}
            onFocus={() => setAt(index)}
            onClick={() => put(index, next(mark))}
            onKeyDown={(event) => onKey(event, index)}
            className="flex min-w-11 flex-col items-center px-1.5 py-1"
          >
            <span className="font-mono text-sm">{index + 1}</span>
            {dip ? (
              <Slider mark={mark} onTop={onTop} side={side} faded={locked(index)} />
            ) : (
              <span className="font-mono text-3xl">{mark}</span>
            )}
          </button>
        ))}
      </div>
      <TypedPlaces
        element={element}
        value={value}
        symbols={symbols}
        unreadable={unreadable}
        disabled={disabled}
        onChange={onChange}
      >
        {unreadable && (
          <Button disabled={disabled} onClick={() => put(at, UNREADABLE)}>
            ? for {element.points[at]}
          </Button>
        )}
      </TypedPlaces>
      <p className="text-sm text-faint">
        {dip ? `1 is on; on is ${onTop ? "up" : "down"} here` : "One symbol a place"}
        {reversed ? ", place 1 is on the right" : ""}
        {element.locked.length > 0
          ? `; ${element.locked.join(", ")} stay${element.locked.length > 1 ? "" : "s"} as the maker set it`
          : ""}
        .
      </p>
    </div>
  );
}

function markWords(mark: string, dip: boolean) {
  if (mark === UNREADABLE) return "unreadable";
  return dip ? (mark === "1" ? "on" : "off") : mark;
}

function Slider({ mark, onTop, side, faded }: { mark: string; onTop: boolean; side: Side; faded: boolean }) {
  const up = (mark === "1") === onTop;
  const ink = side === "original" ? "bg-original" : "bg-replacement";
  return (
    <span className="relative block h-16 w-8 border-2 border-edge bg-ground" aria-hidden="true">
      {mark === UNREADABLE ? (
        <span className="absolute inset-0 grid place-items-center text-2xl">?</span>
      ) : (
        <span className={`absolute inset-x-0.5 h-7 ${up ? "top-0.5" : "bottom-0.5"} ${faded ? "bg-edge" : ink}`} />
      )}
    </span>
  );
}
