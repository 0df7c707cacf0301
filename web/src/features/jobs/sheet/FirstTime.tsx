import { WORDS } from "@/ui/words";

/** What one does in a step, for whoever has not done it before. */
const HINTS: Record<string, string> = {
  rule_out:
    "Boards are blamed for much that is something else. Say what the machine does, then take the tests in their order: most told for least time and risk.",
  recognise:
    "Read the number off the board itself, and the machine’s plate; a display may have come with another board.",
  choose: "The candidates stand best first, each with what speaks against it. Nothing is taken until you say so.",
  make_safe:
    "Each line is confirmed by you, with a reading where it says so; what needs a dead machine opens only when all of them hold.",
  record: "Enter what you see, as it hangs, before anything moves. What cannot be read is a ?, and that is an answer.",
  carry_over:
    "The positions of the new board are worked out from what the old ones meant. Where two ways disagree, you decide and say why.",
  fit: "One thing at a time, ticked as it is done. What you set is read back before the power comes on.",
  prove: "The two are compared by calculation first; then the runs are made on the machine and each event is timed.",
  hand_over: "What the office keeps, and what stays inside the machine for the next person.",
};

/** For somebody who does a step for the first time: what is done there, and the words that are met there. */
export function FirstTime({ step }: { step: string }) {
  const words = WORDS.filter((each) => each.met === step);
  return (
    <aside aria-label="For the first time" className="mb-2 border-l-4 border-edge pl-3 leading-snug">
      <p>{HINTS[step]}</p>
      <dl>
        {words.map(({ word, meaning }) => (
          <div key={word}>
            <dt className="inline font-semibold">{word}</dt>
            <dd className="inline text-faint">: {meaning}.</dd>
          </div>
        ))}
      </dl>
    </aside>
  );
}
