import { forgetTyped, keepTyped, typedAt } from "@/api/typed";
import { useState } from "react";

type Held<Typed> = {
  typed: Typed;
  /** What stood there when the typing began. */
  base: string;
  /** What was saved since, oldest first. */
  sent: string[];
};

type Form<Typed> = {
  /** What is shown of a text that is kept. */
  read: (text: string) => Typed;
  /** The text that is kept of what was typed. */
  write: (typed: Typed) => string;
};

const LINE: Form<string> = { read: (text) => text, write: (typed) => typed.trim() };

/** A line of text as `useTypedAs` has it. */
export const useTyped = (value: string, place: string) => useTypedAs(value, place, LINE);

/**
 * What somebody types: it stands until it is acknowledged, whatever older answers come in meanwhile.
 *
 * What was typed and not saved yet outlives a reload of the page, under `place`, and is then said to be `restored`.
 */
export function useTypedAs<Typed>(value: string, place: string, { read, write }: Form<Typed>) {
  const [held, setHeld] = useState<Held<Typed> | null>(() => {
    const typed = parsed<Typed>(place);
    return typed === null || write(typed) === value ? null : { typed, base: value, sent: [] };
  });
  const [restored, setRestored] = useState(held !== null);
  const last = held?.sent.at(-1);
  const dirty = held !== null && write(held.typed) !== (last ?? held.base);
  const over =
    last === undefined ? value !== held?.base : value === last || (value !== held?.base && !held?.sent.includes(value));
  // acknowledged, or somebody else said something since: from now on it is what stands there
  if (held && !dirty && over) setHeld(null);
  const begun = (old: Held<Typed> | null) => old ?? { base: value, sent: [] };
  return {
    shown: held ? held.typed : read(value),
    dirty,
    restored: restored && dirty,
    type: (typed: Typed) => {
      keepTyped(place, JSON.stringify(typed));
      setRestored(false);
      setHeld((old) => ({ ...begun(old), typed }));
    },
    /** Say that this is what was saved. */
    saved: (typed: Typed) => {
      forgetTyped(place);
      setRestored(false);
      setHeld((old) => ({ ...begun(old), typed, sent: [...begun(old).sent, write(typed)] }));
    },
    /** Back to what stands there. */
    drop: () => {
      forgetTyped(place);
      setRestored(false);
      setHeld(null);
    },
  };
}

/** A form of several fields that is saved by a button: what was typed outlives a reload of the page, until it is saved or left. */
export function useTypedForm<Fields extends object>(place: string, empty: Fields) {
  const [fields, setFields] = useState<Fields>(() => ({ ...empty, ...parsed<Partial<Fields>>(place) }));
  const set = (change: Partial<Fields>) => {
    const next = { ...fields, ...change };
    keepTyped(place, JSON.stringify(next));
    setFields(next);
  };
  const done = () => {
    forgetTyped(place);
    setFields(empty);
  };
  return { fields, set, done };
}

/** Whether something was typed at a place and not saved yet. */
export const isTypedAt = (place: string) => typedAt(place) !== null;

/** One field of a form that is saved by a button, as `useTypedForm` keeps several; put back to what it began with, it is forgotten. */
export function useTypedText(place: string, initial = ""): [string, (text: string) => void] {
  const [text, setText] = useState(() => parsed<string>(place) ?? initial);
  const set = (next: string) => {
    if (next === initial) forgetTyped(place);
    else keepTyped(place, JSON.stringify(next));
    setText(next);
  };
  return [text, set];
}

/** What was typed at a place and not saved; null where nothing was. */
function parsed<Typed>(place: string): Typed | null {
  const text = typedAt(place);
  if (text === null) return null;
  try {
    return JSON.parse(text) as Typed;
  } catch {
    return null;
  }
}
