/** The product's own words, each in one line, in the order in which a job meets them. */
export const WORDS: [word: string, meaning: string][] = [
  ["hold point", "something that must be true before the work goes on, confirmed by somebody with a name and a time"],
  [
    "original, replacement",
    "the board that comes out, square-cornered and first; the one that goes in, round-cornered and second",
  ],
  [
    "fits, with work, to check, no",
    "what a candidate is on each point: as it is; after some work; not known yet; not possible",
  ],
  ["position", "how one switch, jumper, selector, wheel or number stands"],
  ["unreadable (?)", "a position that nobody could read: every one that is possible still counts"],
  ["function", "what positions mean to the machine: a time, a number, a choice"],
  ["reserved", "positions that mean nothing on this board; they are never chosen"],
  ["carry over", "work out how the replacement must stand so that its functions are those of the original"],
  [
    "school",
    "a way of settling how to set a board: by functions, by the leaflet’s row, position for position, by learning",
  ],
  ["position for position", "set as the old one stood, place by place, whatever the places mean on the new board"],
  ["twin check", "both boards, as they stand, compared for every series of input changes there is"],
  ["in register", "the twin check found no difference; within tolerance: only in numbers that may differ a little"],
  ["off register", "there is a series of input changes after which the two show something different: the counter-case"],
  ["open", "cannot be said, because something could not be read"],
  ["not proved", "the twin check ended without an answer; that is no yes and no no"],
  ["moves whole", "a keyed plug that fits goes over with all its wires; nothing in it needs a record"],
  ["straight to the new board", "a wire that goes from pin to pin while both boards hang there, recorded as it moves"],
  ["read back, blind", "read again by somebody who does not see what it should be"],
];
