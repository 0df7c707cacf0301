import { timeWords } from "@/ui/numbers";
import { Choice } from "@/ui/fields";
import { useState } from "react";

type Arrow = {
  to: string;
  if?: Record<string, boolean>;
  when?: Record<string, unknown>;
  after?: number | string;
  clock?: string;
  count?: Record<string, unknown>;
};
type State = { title?: string; on?: (string | { output: string })[]; go?: Arrow[] };
export type Machine = { id?: string; start: string; states: Record<string, State>; survive_power_loss?: string[] };

type Props = { machine: Machine; titles: Record<string, string> };

const BOX = { w: 148, h: 46, gapX: 26, gapY: 66 };

/** A machine as a state diagram laid out from its data; a chosen state tells its ways out in words. */
export function StateDiagram({ machine, titles }: Props) {
  const [chosen, setChosen] = useState(machine.start);
  const spots = layOut(machine);
  const columns = Math.max(...[...spots.values()].map((spot) => spot.column)) + 1;
  const rows = Math.max(...[...spots.values()].map((spot) => spot.row)) + 1;
  const width = columns * (BOX.w + BOX.gapX) + 20;
  const height = rows * (BOX.h + BOX.gapY) - BOX.gapY + 44;
  const at = (name: string) => {
    const spot = spots.get(name) ?? { column: 0, row: 0 };
    return { x: 10 + spot.column * (BOX.w + BOX.gapX), y: 30 + spot.row * (BOX.h + BOX.gapY) };
  };
  const state = machine.states[chosen];
  return (
    <div className="flex flex-col gap-3">
      <div
        className="overflow-x-auto border-y border-rule bg-raised"
        tabIndex={0}
        role="region"
        aria-label="State diagram"
      >
        <svg
          viewBox={`0 0 ${width} ${height}`}
          style={{ minWidth: Math.min(width, 560), maxWidth: width }}
          className="block"
          aria-hidden="true"
        >
          <marker id="arrow-end" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="6" markerHeight="6" orient="auto">
            <path d="M0 0 8 4 0 8Z" fill="var(--text)" />
          </marker>
          {Object.entries(machine.states).flatMap(([name, each]) =>
            [...new Set((each.go ?? []).map((go) => go.to))].map((to) => (
              <path
                key={`${name}>${to}`}
                d={curve(at(name), at(to))}
                fill="none"
                stroke={name === chosen ? "var(--text)" : "var(--rule)"}
                strokeWidth={name === chosen ? 2.2 : 1.3}
                markerEnd={name === chosen ? "url(#arrow-end)" : undefined}
              />
            )),
          )}
          {Object.entries(machine.states).map(([name, each]) => {
            const { x, y } = at(name);
            return (
              <g
                key={name}
                transform={`translate(${x} ${y})`}
                onClick={() => setChosen(name)}
                className="cursor-pointer"
              >
                <rect
                  width={BOX.w}
                  height={BOX.h}
                  fill="var(--ground)"
                  stroke="var(--text)"
                  strokeWidth={name === chosen ? 3 : 1.2}
                  strokeDasharray={machine.survive_power_loss?.includes(name) ? "7 3" : undefined}
                />
                <text x={8} y={18} fontSize={13} fontWeight={650} fill="var(--text)">
                  {each.title ?? name}
                </text>
                <text x={8} y={36} fontSize={11} fill="var(--faint)">
                  {(each.on ?? [])
                    .map((out) => titles[typeof out === "string" ? out : out.output] ?? "")
                    .join(", ")
                    .slice(0, 26) || "nothing on"}
                </text>
              </g>
            );
          })}
        </svg>
      </div>
      <div className="max-w-xs">
        <Choice
          label="State"
          hint={machine.survive_power_loss?.includes(chosen) ? "kept when the supply is lost" : undefined}
          value={chosen}
          onChange={(event) => setChosen(event.target.value)}
        >
          {Object.entries(machine.states).map(([name, each]) => (
            <option key={name} value={name}>
              {each.title ?? name}
            </option>
          ))}
        </Choice>
      </div>
      <ul className="flex flex-col gap-1">
        {(state?.go ?? []).map((go, index) => (
          <li key={index}>
            To <strong>{machine.states[go.to]?.title ?? go.to}</strong> {arrowWords(go, titles)}
          </li>
        ))}
        {!state?.go?.length && <li className="text-faint">No way out of this state.</li>}
      </ul>
    </div>
  );
}

function arrowWords(go: Arrow, titles: Record<string, string>): string {
  const parts = Object.entries(go.if ?? {}).map(([name, value]) => `${titles[name] ?? name}: ${value ? "yes" : "no"}`);
  if (go.after !== undefined)
    parts.push(
      `after ${typeof go.after === "number" ? timeWords(go.after) : (titles[go.after] ?? go.after)}${go.clock ? ` on clock ${go.clock}` : ""}`,
    );
  if (go.count) {
    const limit = go.count.reached ?? go.count.below;
    parts.push(
      `${go.count.reached !== undefined ? "counted to" : "counted below"} ${titles[String(limit)] ?? String(limit)}`,
    );
  }
  const where = Object.entries(go.when ?? {}).map(([name, value]) => `${titles[name] ?? name} is ${String(value)}`);
  const told = [parts.length ? `when ${parts.join(", ")}` : "", where.length ? `where ${where.join(", ")}` : ""];
  return told.filter(Boolean).join(", ") || "at once";
}

/** States in the order in which they are reached from the start, three a row, turning at the end of each row. */
function layOut(machine: Machine): Map<string, { column: number; row: number }> {
  const order = [machine.start];
  for (const name of order)
    for (const go of machine.states[name]?.go ?? [])
      if (machine.states[go.to] && !order.includes(go.to)) order.push(go.to);
  for (const name of Object.keys(machine.states)) if (!order.includes(name)) order.push(name);
  const spot = (index: number) => ({ row: Math.floor(index / 3), column: index % 6 < 3 ? index % 3 : 2 - (index % 3) });
  return new Map(order.map((name, index) => [name, spot(index)]));
}

/** From the edge of one box to the edge of the other, bent so that there and back do not fall on each other. */
function curve(from: { x: number; y: number }, to: { x: number; y: number }): string {
  const right = to.x > from.x;
  if (from.y === to.y && from.x === to.x) return `M${from.x + BOX.w - 30} ${from.y}c0 -24 22 -24 22 0`;
  if (from.y === to.y) {
    const far = Math.abs(to.x - from.x) > BOX.w + BOX.gapX;
    const lift = (far ? 24 : 14) * (right ? -1 : 1);
    const y = right ? from.y : from.y + BOX.h;
    const [start, end] = [from.x + BOX.w * (right ? 0.7 : 0.3), to.x + BOX.w * (right ? 0.3 : 0.7)];
    return `M${start} ${y}C${start} ${y + lift} ${end} ${y + lift} ${end} ${y}`;
  }
  const down = to.y > from.y;
  const start = { x: from.x + BOX.w * (down ? 0.4 : 0.6), y: down ? from.y + BOX.h : from.y };
  const end = { x: to.x + BOX.w * (down ? 0.4 : 0.6), y: down ? to.y : to.y + BOX.h };
  const pull = ((down ? 1 : -1) * BOX.gapY) / 1.6;
  return `M${start.x} ${start.y}C${start.x} ${start.y + pull} ${end.x} ${end.y - pull} ${end.x} ${end.y}`;
}
