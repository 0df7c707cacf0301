import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { inTurn } from "../../entries/inTurn";
import type { StepProps } from "../../stepProps";

/** The way back to power where everything is done: released in order, in one breath; then nothing is left to set. */
export function PowerAtOnce({ put, fitting }: Pick<StepProps, "put"> & { fitting: Schemas["FittingShown"] }) {
  const released = fitting.release.map((point) => point.id);
  const on = () =>
    void inTurn(put, [
      { target: "energised", after: { released } },
      ...(fitting.missing_powered.length === 0 ? [{ target: "confirmed.fit" as const, after: { note: "" } }] : []),
    ]);
  return (
    <section aria-label="Back to power" className="hatched flex flex-col gap-3 p-4">
      <h3>Back to power</h3>
      <p>People clear, covers on, tools out. Released from the last to the first:</p>
      <ol className="list-decimal pl-6">
        {fitting.release.map((point) => (
          <li key={point.id}>{point.title}</li>
        ))}
      </ol>
      <p className="font-semibold">
        From here the machine has power. Nothing is touched inside; whoever works inside again locks off first.
      </p>
      <Button kind="main" className="min-h-14 self-start" onClick={on}>
        Released in this order: the supply is on
      </Button>
    </section>
  );
}
