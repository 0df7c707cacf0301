import { useState, type ReactNode } from "react";
import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { seen } from "./hanging";
import { UNREADABLE, places, type EditorProps } from "./types";

type Props = Omit<EditorProps, "side"> & { symbols: string[]; children?: ReactNode };

/** All places of an element typed as one text, in the order in which the eye meets them; nothing changes until every place is there. */
export function TypedPlaces({ element, value, symbols, unreadable, disabled, onChange, children }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const marks = places(element, value);
  const { hanging } = element;
  const wrong = typed !== null && typed.trim() !== "";
  const send = (text: string) => {
    setTyped(text);
    const clean = text.replace(/[\s-]/g, "");
    const allowed = [...clean].every((mark) => symbols.includes(mark) || (unreadable && mark === UNREADABLE));
    if (clean.length === marks.length && allowed) {
      onChange(seen([...clean], hanging).join(""));
      setTyped(null);
    }
  };
  return (
    <>
      <div className="flex flex-wrap items-end gap-2">
        <div className="w-44">
          <TextField
            label={`${element.id} typed`}
            hint={
              hanging.backwards
                ? `as seen, ${hanging.axis === "down" ? "top" : "left"} first: ${marks.length} to 1`
                : undefined
            }
            className="font-mono text-xl tracking-widest"
            value={typed ?? (value === undefined ? "" : seen(marks, hanging).join(""))}
            placeholder={marks.map(() => symbols[0]).join("")}
            disabled={disabled}
            spellCheck={false}
            autoComplete="off"
            aria-invalid={wrong}
            onChange={(event) => send(event.target.value)}
            onBlur={() => !wrong && setTyped(null)}
          />
        </div>
        {/* beside the field, where a phone shows it above the bar at its foot */}
        {wrong && (
          <p role="alert" className="basis-full text-sm font-semibold">
            {marks.length} {marks.length === 1 ? "place" : "places"} of {symbols.join(" ")}
            {unreadable ? " or ?" : ""} {marks.length === 1 ? "is" : "are"} needed here; nothing was changed yet.
          </p>
        )}
        {children}
        {unreadable && value === undefined && (
          <Button disabled={disabled} onClick={() => onChange(UNREADABLE.repeat(marks.length))}>
            Nothing readable
          </Button>
        )}
      </div>
    </>
  );
}
