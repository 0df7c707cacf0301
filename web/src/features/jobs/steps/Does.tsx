import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { useState } from "react";
import { minutes, useCountdown } from "./make_safe/useCountdown";

/** What a test does to the machine, line by line, with this board's own points and pins; a wait has its clock. */
export function Does({ does }: { does: Schemas["DoesShown"][] }) {
  if (does.length === 0) return null;
  return (
    <ol className="list-decimal pl-6" aria-label="What this test does">
      {does.map((each, at) => (
        <li key={at} className="py-1">
          <span className={each.what === "expect" ? "" : "font-semibold"}>{each.words}</span>
          {each.missing && <span className="text-faint"> (this board names no such place: look for it)</span>}
          {each.what === "wait" && <Wait seconds={each.wait_s} />}
        </li>
      ))}
    </ol>
  );
}

function Wait({ seconds }: { seconds: number }) {
  const [begun, setBegun] = useState<number | null>(null);
  if (begun === null)
    return (
      <Button
        className="ml-3"
        aria-label={`Start the wait of ${seconds} s`}
        onClick={() => setBegun(performance.now())}
      >
        Start
      </Button>
    );
  return <Left seconds={seconds} begun={begun} />;
}

function Left({ seconds, begun }: { seconds: number; begun: number }) {
  const left = useCountdown(seconds, begun);
  return (
    <span role="timer" className="ml-3 font-mono text-xl">
      {left > 0 ? minutes(left) : "over"}
    </span>
  );
}
