import { useEffect, useRef, useState, type KeyboardEvent } from "react";
import { Button } from "@/ui/Button";
import { hangingWords, onArrow, points } from "./hanging";
import { TypedPlaces } from "./TypedPlaces";
import { UNREADABLE, places, type EditorProps, type Side } from "./types";

const WAY_KEYS: Record<string, string> = { ArrowUp: "up", ArrowDown: "down", ArrowLeft: "left", ArrowRight: "right" };

/** A switch bank (or code) large: tap a slider, or arrow keys and space, or type the whole bank. */
export function BankEditor({ element, value, side, unreadable = true, disabled, onChange }: EditorProps) {
  const [said, setSaid] = useState(value);
  const [stood, setStood] = useState(value);
  if (stood !== value) {
    setStood(value);
    setSaid(value);
  }
  // what was touched shows before the sheet around it is drawn anew
  const marks = places(element, said);
  const [at, setAt] = useState(0);
  const buttons = useRef<(HTMLButtonElement | null)[]>([]);
  const dip = element.kind === "dip";
  const symbols = dip ? ["0", "1"] : element.values.map(String);
  const { hanging } = element;
  const down = hanging.axis === "down";

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
    setSaid(latest.current.join(""));
    onChange(latest.current.join(""));
  };
  const next = (mark: string) => symbols[(symbols.indexOf(mark) + 1) % symbols.length] ?? UNREADABLE;
  const go = (index: number) => {
    const target = Math.max(0, Math.min(marks.length - 1, index));
    setAt(target);
    buttons.current[target]?.focus();
  };
  const onKey = (event: KeyboardEvent, index: number) => {
    // the eye's order, which runs against the numbers where place 1 is seen last
    const step = hanging.backwards ? -1 : 1;
    if (event.key === (down ? "ArrowDown" : "ArrowRight")) go(index + step);
    else if (event.key === (down ? "ArrowUp" : "ArrowLeft")) go(index - step);
    else if (symbols.includes(event.key) || (unreadable && event.key === UNREADABLE)) {
      put(index, event.key);
      go(index + 1);
    } else if (dip && WAY_KEYS[event.key]) put(index, WAY_KEYS[event.key] === hanging.on ? "1" : "0");
    else return;
    event.preventDefault();
  };

  return (
    <div className="flex flex-col gap-3">
      <div className={`flex w-fit max-w-full ${ON_STANDS[dip ? hanging.on : "none"]}`}>
        {dip && <span className="font-mono text-lg">{onArrow(hanging)}</span>}
        <div
          role="group"
          aria-label={`${element.id} ${element.title}`}
          className={`flex w-fit max-w-full flex-wrap border-2 bg-raised p-1 ${side === "original" ? "rounded-none border-original" : "rounded-2xl border-replacement"} ${down ? (hanging.backwards ? "flex-col-reverse" : "flex-col") : hanging.backwards ? "flex-row-reverse" : ""}`}
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
              className={`flex min-h-11 min-w-11 items-center px-1.5 py-1 ${down ? "gap-2" : "flex-col"}`}
            >
              <span className="font-mono text-sm">{index + 1}</span>
              {dip ? (
                <Slider way={points(mark, hanging)} down={down} side={side} faded={locked(index)} />
              ) : (
                <span className="font-mono text-3xl">{mark}</span>
              )}
            </button>
          ))}
        </div>
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
        {dip ? `As it hangs, ${hangingWords(hanging, marks.length)}; 1 is on` : "One symbol a place"}
        {element.locked.length > 0
          ? `; ${element.locked.join(", ")} stay${element.locked.length > 1 ? "" : "s"} as the maker set it`
          : ""}
        .
      </p>
    </div>
  );
}

/** Where the word for on stands: at the side of the bank to which its sliders point when they are on. */
const ON_STANDS = {
  up: "flex-col",
  down: "flex-col-reverse",
  left: "flex-row items-center gap-2",
  right: "flex-row-reverse items-center gap-2",
  none: "flex-col",
};

function markWords(mark: string, dip: boolean) {
  if (mark === UNREADABLE) return "unreadable";
  return dip ? (mark === "1" ? "on" : "off") : mark;
}

type SliderProps = { way: ReturnType<typeof points>; down: boolean; side: Side; faded: boolean };

function Slider({ way, down, side, faded }: SliderProps) {
  const ink = faded ? "bg-edge" : side === "original" ? "bg-original" : "bg-replacement";
  return (
    <span
      data-ink={side}
      className={`relative block border-2 border-edge bg-ground ${down ? "h-8 w-16" : "h-16 w-8"}`}
      aria-hidden="true"
    >
      {way === undefined ? (
        <span className="absolute inset-0 grid place-items-center text-2xl">?</span>
      ) : (
        <span className={`absolute ${SLIDER[way]} ${ink}`} />
      )}
    </span>
  );
}

const SLIDER = {
  up: "inset-x-0.5 top-0.5 h-7",
  down: "inset-x-0.5 bottom-0.5 h-7",
  left: "inset-y-0.5 left-0.5 w-7",
  right: "inset-y-0.5 right-0.5 w-7",
};
