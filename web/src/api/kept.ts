/**
 * What this device keeps of a person beside the database: read at once, and all of it under their name, so that another person never
 * sees it and one call forgets it.
 */

const WHO = "worthy-twin person";

/** Who works on this device, as far as it is known at once. */
export const personHere = () => localStorage.getItem(WHO);

/** Note who works on this device; null where nobody does. */
export function notePersonHere(person: string | null) {
  if (person === null) localStorage.removeItem(WHO);
  else localStorage.setItem(WHO, person);
}

/** The text that is kept under a name; null where there is none. */
export function keptText(name: string, person = personHere() ?? ""): string | null {
  try {
    return localStorage.getItem(keyOf(person, name));
  } catch {
    return null;
  }
}

/** Keep a text under a name, or forget it where it is null. A device without room keeps nothing: the page still has it. */
export function keepText(name: string, text: string | null, person = personHere() ?? "") {
  try {
    if (text === null) localStorage.removeItem(keyOf(person, name));
    else localStorage.setItem(keyOf(person, name), text);
  } catch {
    // no room on the device
  }
}

/** What is kept under a name, as it was; null where there is nothing, or nothing that can be read. */
export function keptValue<Value>(name: string, person?: string): Value | null {
  const text = keptText(name, person);
  if (text === null) return null;
  try {
    return JSON.parse(text) as Value;
  } catch {
    return null;
  }
}

/** Keep a value under a name, or forget it where it is null. */
export const keepValue = (name: string, value: unknown, person?: string) =>
  keepText(name, value === null ? null : JSON.stringify(value), person);

/** The names under which something is kept of a person. */
export function keptNames(person: string): string[] {
  const theirs = keyOf(person, "");
  return Object.keys(localStorage)
    .filter((key) => key.startsWith(theirs))
    .map((key) => key.slice(theirs.length));
}

/** Forget all that is kept of a person. */
export const forgetKept = (person: string) => keptNames(person).forEach((name) => keepText(name, null, person));

/** Take over what an earlier version kept under keys of its own: only what still waits to be sent. */
export function takeOverKept() {
  for (const key of Object.keys(localStorage)) {
    const [, maker, draft] = /^workshop (\S+) (\S+)$/.exec(key) ?? [];
    const learner = /^worthy-twin practice waiting (\S+)$/.exec(key)?.[1];
    if (maker) keepText(`workshop ${draft}`, localStorage.getItem(key), maker);
    else if (learner) keepText("practice waiting", localStorage.getItem(key), learner);
    else continue;
    localStorage.removeItem(key);
  }
}

// names of people have no space in them
const keyOf = (person: string, name: string) => `of ${person} ${name}`;
