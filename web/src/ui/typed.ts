import { keepText, keepValue, keptText, keptValue } from "@/api/kept";
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
    const typed = keptValue<Typed>(keyOf(place));
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
      keepValue(keyOf(place), typed);
      setRestored(false);
      setHeld((old) => ({ ...begun(old), typed }));
    },
    /** Say that this is what was saved. */
    saved: (typed: Typed) => {
      keepText(keyOf(place), null);
      setRestored(false);
      setHeld((old) => ({ ...begun(old), typed, sent: [...begun(old).sent, write(typed)] }));
    },
    /** Back to what stands there. */
    drop: () => {
      keepText(keyOf(place), null);
      setRestored(false);
      setHeld(null);
    },
  };
}

/** A form of several fields that is saved by a button: what was typed outlives a reload of the page, until it is saved or left. */
export function useTypedForm<Fields extends object>(place: string, empty: Fields) {
  const [fields, setFields] = useState<Fields>(() => ({ ...empty, ...keptValue<Partial<Fields>>(keyOf(place)) }));
  const set = (change: Partial<Fields>) => {
    const next = { ...fields, ...change };
    // what nobody touched is read anew after a reload: somebody else may have changed it
    const touched = Object.entries(next).filter(
      ([name, value]) => JSON.stringify(value) !== JSON.stringify(empty[name as keyof Fields]),
    );
    keepValue(keyOf(place), touched.length ? Object.fromEntries(touched) : null);
    setFields(next);
  };
  const forget = () => keepText(keyOf(place), null);
  const done = () => {
    forget();
    setFields(empty);
  };
  return { fields, set, done, forget };
}

/** Whether something was typed at a place and not saved yet. */
export const isTypedAt = (place: string) => keptText(keyOf(place)) !== null;

/**
 * A part of a form that is saved by a button, as `useState` has it; it outlives a reload of the page until it is back to what it
 * began with, or is forgotten because it was saved. `outlives` is what of it may be kept, where that is not all.
 */
export function useKeptState<Value>(
  place: string,
  initial: Value,
  outlives: (value: Value) => Value = (value) => value,
): [value: Value, set: (next: Value) => void, forget: () => void] {
  const [value, setValue] = useState(() => keptValue<Value>(keyOf(place)) ?? initial);
  const set = (next: Value) => {
    const kept = outlives(next);
    keepValue(keyOf(place), JSON.stringify(kept) === JSON.stringify(initial) ? null : kept);
    setValue(next);
  };
  return [value, set, () => keepText(keyOf(place), null)];
}

const keyOf = (place: string) => `typed ${location.pathname} ${place}`;
