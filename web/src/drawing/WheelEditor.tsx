import type { KeyboardEvent } from "react";
import { Button } from "@/ui/Button";
import { TypedPlaces } from "./TypedPlaces";
import { UNREADABLE, places, type Element, type EditorProps } from "./types";

/** A row of thumbwheels large: a step up or down on each wheel, or all digits typed; what a meter finds stands below. */
export function WheelEditor({ element, value, side, unreadable = true, disabled, onChange }: EditorProps) {
  const marks = places(element, value);
  const digits = element.values.map(String);
  const fixed = (index: number) => disabled || (!unreadable && element.locked.includes(element.points[index] ?? ""));
  const put = (index: number, mark: string) =>
    !fixed(index) && onChange(marks.map((old, i) => (i === index ? mark : old)).join(""));
  const turn = (index: number, by: number) => {
    const at = digits.indexOf(marks[index] ?? "");
    // a wheel that nobody could read starts at its first digit
    put(index, digits[at < 0 ? 0 : (at + by + digits.length) % digits.length] ?? UNREADABLE);
  };
  const onKey = (event: KeyboardEvent, index: number) => {
    if (event.key === "ArrowUp") turn(index, 1);
    else if (event.key === "ArrowDown") turn(index, -1);
    else if (digits.includes(event.key) || (unreadable && event.key === UNREADABLE)) put(index, event.key);
    else return;
    event.preventDefault();
  };
  const ink = side === "original" ? "rounded-none border-original" : "rounded-xl border-replacement";
  return (
    <div className="flex flex-col gap-3">
      <div
        role="group"
        aria-label={`${element.id} ${element.title}`}
        className={`flex w-fit flex-wrap gap-2 ${element.hanging.backwards ? "flex-row-reverse" : ""}`}
      >
        {marks.map((mark, index) => {
          const point = element.points[index] ?? "";
          const told = mark === UNREADABLE ? "unreadable" : mark;
          return (
            <div
              key={point}
              role="spinbutton"
              tabIndex={0}
              aria-label={point}
              aria-valuenow={mark === UNREADABLE ? undefined : Number(mark)}
              aria-valuetext={told}
              aria-valuemin={0}
              aria-valuemax={9}
              onKeyDown={(event) => onKey(event, index)}
              className="flex flex-col items-center gap-1"
            >
              <Button tabIndex={-1} disabled={fixed(index)} aria-label={`${point} up`} onClick={() => turn(index, 1)}>
                +
              </Button>
              <span className={`grid h-16 w-12 place-items-center border-2 bg-raised font-mono text-4xl ${ink}`}>
                {mark}
              </span>
              <Button
                tabIndex={-1}
                disabled={fixed(index)}
                aria-label={`${point} down`}
                onClick={() => turn(index, -1)}
              >
                −
              </Button>
              {unreadable && (
                <Button
                  kind="quiet"
                  tabIndex={-1}
                  disabled={disabled}
                  aria-label={`${point} unreadable`}
                  onClick={() => put(index, UNREADABLE)}
                >
                  ?
                </Button>
              )}
            </div>
          );
        })}
      </div>
      <TypedPlaces
        element={element}
        value={value}
        symbols={digits}
        unreadable={unreadable}
        disabled={disabled}
        onChange={onChange}
      />
      {marks.some((mark) => mark !== UNREADABLE) && (
        <p className="text-sm text-faint">
          Closed to common: {marks.map((_, index) => closed(element, marks, index)).join("; ")}.
        </p>
      )}
    </div>
  );
}

/** The contacts of a wheel that a meter finds closed, by their weights. */
function closed(element: Element, marks: string[], index: number): string {
  const weights = element.contacts[element.values.findIndex((each) => String(each) === marks[index])];
  return `${element.points[index]} ${weights === undefined ? "?" : weights.length ? weights.join(" ") : "none"}`;
}
