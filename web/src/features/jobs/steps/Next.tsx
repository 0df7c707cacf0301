import { Button } from "@/ui/Button";
import { useKeys } from "@/ui/useKeys";
import type { Job } from "../api";

type Props = {
  job: Job;
  step: string;
  /** What is to be done next, in a few words. */
  words: string;
  button: string;
  /** Whether the button ends the step: then it is there too where the step is not in hand. */
  ends?: boolean;
  onGo: () => void;
};

/** The next thing to do, in one line with one button; under the thumb on a phone. Only the step in hand has one. */
export function Next({ job, step, words, button, ends = false, onGo }: Props) {
  const inHand = !job.closed && job.step === step;
  useKeys({ n: onGo }, inHand);
  if (job.closed) return null;
  if (!inHand)
    return ends ? (
      <Button kind="main" className="self-start" onClick={onGo}>
        {button}
      </Button>
    ) : null;
  return (
    <section
      aria-label="Next"
      className="fixed inset-x-0 bottom-0 z-20 flex flex-wrap items-center gap-x-3 border-t-2 border-text bg-ground px-4 py-2 desk:static desk:border-y desk:border-text desk:px-0"
    >
      <p aria-live="polite" className="line-clamp-2 min-w-0 flex-1 basis-24 leading-snug">
        <span className="font-semibold">Next:</span> {words}
      </p>
      <Button kind="main" className="min-h-12 max-w-full" onClick={onGo}>
        {button}
      </Button>
    </section>
  );
}

/** Bring a part of the page into sight, and the hand to the first thing that can be done there. */
export function goTo(id: string) {
  const place = document.getElementById(id);
  if (!place) return;
  const still = window.matchMedia("(prefers-reduced-motion: reduce)").matches;
  place.scrollIntoView({ block: "start", behavior: still ? "auto" : "smooth" });
  const within = place.querySelector<HTMLElement>(
    "input, textarea, select, button:not([aria-expanded]):not(:disabled)",
  );
  (within ?? place).focus({ preventScroll: true });
}
