import type { Level } from "./task";

export const LEVEL_WORDS: Record<Level, { title: string; minutes: number; what: string }> = {
  read: { title: "Read a board", minutes: 2, what: "Say how it stands, and what cannot be read." },
  set: { title: "Set a board", minutes: 3, what: "You are told what it has to do. Set it, and run the machine." },
  carry: { title: "Carry one over", minutes: 5, what: "Read the old board, set the new one, and run the machine." },
  wires: { title: "Move the wires", minutes: 4, what: "Put each wire where the new board has what it carries." },
  keys: { title: "Key values in", minutes: 3, what: "Key in what is asked for; the display shows what it shows." },
  meter: {
    title: "Measure at its pins",
    minutes: 4,
    what: "Something should be on and is not. Measure, and say whose fault it is.",
  },
  find: {
    title: "Find out what it is",
    minutes: 5,
    what: "Test until you know whether it is the board, and what it is.",
  },
  safe: {
    title: "Make it safe",
    minutes: 2,
    what: "Do what this machine asks for, in its order, before you take hold of the board.",
  },
  whole: {
    title: "The whole job",
    minutes: 15,
    what: "A machine stands still. Nine steps, and it does again what it did.",
  },
};
export const LEVELS = Object.keys(LEVEL_WORDS) as Level[];

const SKILLS: Record<string, string> = {
  read: "reading positions",
  unreadable: "what cannot be read",
  safety: "safety functions",
  settings: "other functions",
  wires: "wires by signal",
  keys: "keys and menus",
  meter: "measuring where it shows",
  find: "finding the cause",
  "shortest way": "no test too many",
  order: "hold points in order",
  wait: "waiting for stored energy",
  recognise: "knowing a board",
  choose: "choosing a board",
  prove: "running it first",
  "hand over": "saying how it behaves",
};

export const skillWords = (skill: string) => SKILLS[skill] ?? skill;

/** How well somebody has a skill, in a word; the number is an estimate and no mark. */
export function knownWords(known: number): string {
  if (known >= 0.95) return "has it";
  if (known >= 0.6) return "nearly";
  return known >= 0.3 ? "coming" : "not yet";
}

export function minutesWords(seconds: number): string {
  const minutes = Math.round(seconds / 60);
  return minutes < 1 ? "under a minute" : `${minutes} min`;
}
