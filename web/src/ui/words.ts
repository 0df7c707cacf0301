/** The product's own words, each in one line, in the order in which a job meets them, with the step that first uses it. */
export type Word = { word: string; meaning: string; met?: string };

export const WORDS: Word[] = [
  {
    word: "suspect",
    meaning: "what may be at fault; each test moves the suspicion, and the board is only one of them",
    met: "rule_out",
  },
  {
    word: "original, replacement",
    meaning: "the board that comes out, square-cornered and first; the one that goes in, round-cornered and second",
    met: "recognise",
  },
  {
    word: "fits, with work, to check, no",
    meaning: "what a candidate is on each point: as it is; after some work; not known yet; not possible",
    met: "choose",
  },
  {
    word: "hold point",
    meaning: "something that must be true before the work goes on, confirmed by somebody with a name and a time",
    met: "make_safe",
  },
  { word: "position", meaning: "how one switch, jumper, selector, wheel or number stands", met: "record" },
  {
    word: "unreadable (?)",
    meaning: "a position that nobody could read: every one that is possible still counts",
    met: "record",
  },
  {
    word: "moves whole",
    meaning: "a keyed plug that fits goes over with all its wires; nothing in it needs a record",
    met: "record",
  },
  {
    word: "straight to the new board",
    meaning: "a wire that goes from pin to pin while both boards hang there, recorded as it moves",
  },
  {
    word: "carry over",
    meaning: "work out how the replacement must stand so that its functions are those of the original",
    met: "carry_over",
  },
  {
    word: "function",
    meaning: "what positions mean to the machine: a time, a number, a choice",
    met: "carry_over",
  },
  {
    word: "school",
    meaning:
      "a way of settling how to set a board: by functions, by the leaflet’s row, position for position, by learning",
    met: "carry_over",
  },
  {
    word: "position for position",
    meaning: "set as the old one stood, place by place, whatever the places mean on the new board",
  },
  { word: "reserved", meaning: "positions that mean nothing on this board; they are never chosen" },
  { word: "read back, blind", meaning: "read again by somebody who does not see what it should be", met: "fit" },
  {
    word: "twin check",
    meaning: "both boards, as they stand, compared for every series of input changes there is",
    met: "prove",
  },
  {
    word: "in register",
    meaning: "the twin check found no difference; within tolerance: only in numbers that may differ a little",
    met: "prove",
  },
  {
    word: "off register",
    meaning: "there is a series of input changes after which the two show something different: the counter-case",
    met: "prove",
  },
  { word: "open", meaning: "cannot be said, because something could not be read" },
  { word: "not proved", meaning: "the twin check ended without an answer; that is no yes and no no" },
  {
    word: "as found, as left",
    meaning: "the record before anything was touched, and when the job closes",
    met: "hand_over",
  },
];
