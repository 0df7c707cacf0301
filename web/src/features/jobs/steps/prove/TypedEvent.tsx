import { numberFrom } from "@/ui/numbers";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { Choice, TextField } from "@/ui/fields";
import { useState } from "react";
import type { useTiming } from "../useTiming";

type Named = { id: string; title: string };
type Props = { inputs: Named[]; outputs: Named[]; timer: ReturnType<typeof useTiming> };

/** An event that was timed with a watch: typed in, with how well it was timed. */
export function TypedEvent({ inputs, outputs, timer }: Props) {
  const [what, setWhat] = useState(outputs[0]?.id ?? "");
  const [change, setChange] = useState("on");
  const [at, setAt] = useState("");
  const [within, setWithin] = useState("0.5");
  const seconds = numberFrom(at);
  const doubt = numberFrom(within);
  const ready = at.trim() !== "" && seconds >= 0 && seconds <= timer.timing.at + 100_000 && doubt >= 0;
  const add = () => {
    if (inputs.some((each) => each.id === what)) timer.input(what, change === "on", seconds);
    else timer.output(what, change === "on", doubt, seconds);
    setAt("");
  };
  return (
    <details>
      <summary className="min-h-11 py-2">Type an event timed with a watch</summary>
      <div className="flex flex-wrap items-end gap-2">
        <Choice label="What" value={what} onChange={(event) => setWhat(event.target.value)}>
          {[...outputs, ...inputs].map((each) => (
            <option key={each.id} value={each.id}>
              {each.title}
            </option>
          ))}
        </Choice>
        <Choice label="Went" value={change} onChange={(event) => setChange(event.target.value)}>
          <option>on</option>
          <option>off</option>
        </Choice>
        <div className="w-28">
          <TextField label="At, in s" inputMode="decimal" value={at} onChange={(event) => setAt(event.target.value)} />
        </div>
        <div className="w-28">
          <TextField
            label="± s"
            inputMode="decimal"
            value={within}
            onChange={(event) => setWithin(event.target.value)}
          />
        </div>
        <Button needs={lacking({ "when it was": !ready })} onClick={add}>
          Add it
        </Button>
      </div>
    </details>
  );
}
