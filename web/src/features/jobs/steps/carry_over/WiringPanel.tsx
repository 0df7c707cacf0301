import type { Schemas } from "@/api/client";
import { PinTables } from "@/drawing/PinTables";
import { Caution } from "@/ui/notices";
import { oneOf } from "@/ui/oneOf";
import { Choice } from "@/ui/fields";
import type { StepProps } from "../../stepProps";
import { PlaceWires } from "./PlaceWires";

const ORDER_NAMES: Record<string, string> = {
  "supply last": "earth first, supply last",
  "as recorded": "as they were recorded, while locked off",
};

/** Where every wire goes: two pin tables in two inks with lines between, and the list in the order of the work. */
export function WiringPanel({ job, put, wiring }: StepProps & { wiring: Schemas["WiringShown"] }) {
  if (wiring.wires.length === 0)
    return <p className="text-faint">No wire is recorded yet; the plan follows from the record.</p>;
  return (
    <>
      {wiring.traps.map((trap) => (
        <Caution
          key={`${trap.plug} ${trap.socket}`}
          title={`Plug ${trap.plug} goes into ${trap.socket}, and does not belong there`}
        >
          Same housing {trap.style}, other pinning: {trap.pins.join("; ")}.
        </Caution>
      ))}
      {wiring.adapters.length > 0 && <p>Needed: {wiring.adapters.join(", ")}.</p>}
      <PinTables
        original={wiring.original_pins}
        replacement={wiring.replacement_pins}
        wires={wiring.wires.flatMap((wire) => [
          { ...wire, from: wire.from_place, to: wire.to_place },
          ...wire.also.map((place) => ({ ...wire, from: wire.from_place, to: place, tag: "" })),
        ])}
      />
      <PlaceWires job={job} put={put} wiring={wiring} />
      <div className="max-w-sm">
        <Choice
          label="Order"
          value={wiring.order}
          disabled={job.closed}
          onChange={(event) =>
            void put({ target: "order", after: oneOf(event.target.value, wiring.orders, wiring.order) })
          }
        >
          {wiring.orders.map((order) => (
            <option key={order} value={order}>
              {ORDER_NAMES[order] ?? order}
            </option>
          ))}
        </Choice>
      </div>
      <ol className="list-decimal pl-8">
        {wiring.steps.map((step) => (
          <li key={step.key} className="py-1">
            {step.words}
            {step.minded.map((each) => (
              <strong key={each} className="block">
                Mind: {each}
              </strong>
            ))}
          </li>
        ))}
      </ol>
      {wiring.free.length > 0 && (
        <>
          <h4 className="font-semibold">Pins of the new board without a wire</h4>
          <ul className="list-disc pl-5">
            {wiring.free.map((pin) => (
              <li key={pin.place}>
                <span className="font-mono">{pin.place}</span> {pin.title}: {pin.treatment}
                {pin.detail && `, ${pin.detail}`}
              </li>
            ))}
          </ul>
        </>
      )}
      {wiring.sizes.length > 0 && (
        <ul aria-label="Wire sizes">
          {wiring.sizes.map((size) => (
            <li key={size.place} className={size.verdict.startsWith("too") ? "font-semibold" : ""}>
              <span className="font-mono">{size.place}</span> {size.words}
            </li>
          ))}
        </ul>
      )}
      <p className="text-faint">
        {total(wiring.wire_sums)} wires: {told(wiring.wire_sums)}. {total(wiring.pin_sums)} pins:{" "}
        {told(wiring.pin_sums)}.
      </p>
    </>
  );
}

function told(sums: Record<string, number>): string {
  return Object.entries(sums)
    .filter(([, count]) => count > 0)
    .map(([name, count]) => `${count} ${name}`)
    .join(", ");
}

function total(sums: Record<string, number>): number {
  return Object.values(sums).reduce((sum, count) => sum + count, 0);
}
