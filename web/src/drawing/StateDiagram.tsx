import { timeWords } from "@/ui/numbers";
import { Button } from "@/ui/Button";
import { Choice } from "@/ui/fields";
import { useMemo, useState } from "react";
import { drawable, type Arrow, type Machine, type State } from "./machine";
import { boxOf, LINE, useLayout } from "./stateLayout";

type Props = {
  machine: Machine;
  titles: Record<string, string>;
  /** Given where the page decides which state is looked at. */
  chosen?: string;
  onChoose?: (state: string) => void;
  /** Given where arrows may be drawn: from a state to another. */
  onArrow?: (from: string, to: string) => void;
  /** Given where arrows may be taken out: by their place among those of a state. */
  onTakeOut?: (from: string, index: number) => void;
};

/** A machine as a state diagram laid out from its data; a chosen state tells its ways out in words, numbered as drawn. */
export function StateDiagram({ machine: found, titles, chosen: given, onChoose, onArrow, onTakeOut }: Props) {
  const machine = useMemo(() => drawable(found), [found]);
  const [own, setOwn] = useState(machine.start);
  const chosen = given ?? (machine.states[own] ? own : machine.start);
  const [drawing, setDrawing] = useState(false);
  const choose = (to: string) => {
    if (!drawing) return (onChoose ?? setOwn)(to);
    setDrawing(false);
    onArrow?.(chosen, to);
  };
  const boxes = useMemo(
    () => Object.fromEntries(Object.entries(machine.states).map(([name, state]) => [name, boxOf(name, state, titles)])),
    [machine, titles],
  );
  const drawn = useLayout(machine, boxes);
  const state = machine.states[chosen];
  return (
    <div className="flex flex-col gap-3">
      <div
        className="overflow-x-auto border-y border-rule bg-raised"
        style={{ minHeight: 140 }}
        tabIndex={0}
        role="region"
        aria-label="State diagram"
      >
        {drawn && (
          <svg
            viewBox={`0 0 ${drawn.width} ${drawn.height}`}
            style={{ minWidth: Math.min(drawn.width, 560), maxWidth: drawn.width }}
            className="block"
            aria-hidden="true"
          >
            <marker id="arrow-end" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="7" markerHeight="7" orient="auto">
              <path d="M0 0 8 4 0 8Z" fill="context-stroke" />
            </marker>
            {drawn.arrows.map((arrow) => (
              <path
                key={`${arrow.from}>${arrow.to}`}
                d={arrow.path}
                fill="none"
                stroke={arrow.from === chosen ? "var(--text)" : "var(--edge)"}
                strokeWidth={arrow.from === chosen ? 2.2 : 1.3}
                markerEnd="url(#arrow-end)"
              />
            ))}
            {Object.entries(machine.states).map(([name]) => {
              const box = boxes[name];
              const spot = drawn.spots[name];
              if (!box || !spot) return null;
              return (
                <g
                  key={name}
                  transform={`translate(${spot.x} ${spot.y})`}
                  onClick={() => choose(name)}
                  className="cursor-pointer"
                >
                  <rect
                    width={box.width}
                    height={box.height}
                    fill="var(--ground)"
                    stroke="var(--text)"
                    strokeWidth={name === chosen ? 3 : 1.2}
                    strokeDasharray={machine.survive_power_loss?.includes(name) ? "7 3" : undefined}
                  />
                  <text x={8} y={18} fontSize={13} fontWeight={650} fill="var(--text)">
                    {box.title}
                  </text>
                  {box.lines.map((line, index) => (
                    <text key={index} x={8} y={35 + index * LINE} fontSize={11} fill="var(--faint)">
                      {line}
                    </text>
                  ))}
                </g>
              );
            })}
            {drawn.arrows
              .filter((arrow) => arrow.from === chosen)
              .map((arrow) => (
                <g key={arrow.to} transform={`translate(${arrow.label.x} ${arrow.label.y})`}>
                  <circle r={9} fill="var(--ground)" stroke="var(--text)" />
                  <text textAnchor="middle" y={4} fontSize={11} fontWeight={650} fill="var(--text)">
                    {numbersOf(state, arrow.to)}
                  </text>
                </g>
              ))}
          </svg>
        )}
      </div>
      {onArrow && (
        <p className="flex flex-wrap items-center gap-3">
          <Button aria-pressed={drawing} onClick={() => setDrawing(!drawing)}>
            {drawing ? "Not after all" : `Draw an arrow from ${machine.states[chosen]?.title ?? chosen}`}
          </Button>
          {drawing && <span role="status">Tap the state to which it leads, or take it from the list.</span>}
        </p>
      )}
      <div className="max-w-xs">
        <Choice
          label={drawing ? "It leads to" : "State"}
          hint={machine.survive_power_loss?.includes(chosen) ? "kept when the supply is lost" : undefined}
          value={chosen}
          onChange={(event) => choose(event.target.value)}
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
            <span className="text-faint">{index + 1}</span> To <strong>{machine.states[go.to]?.title ?? go.to}</strong>{" "}
            {arrowWords(go, titles)}
            {onTakeOut && (
              <Button
                kind="quiet"
                className="ml-2 text-sm"
                aria-label={`Take it out: arrow ${index + 1} of ${chosen}`}
                onClick={() => onTakeOut(chosen, index)}
              >
                Take it out
              </Button>
            )}
          </li>
        ))}
        {!state?.go?.length && <li className="text-faint">No way out of this state.</li>}
      </ul>
    </div>
  );
}

function arrowWords(go: Arrow, titles: Record<string, string>): string {
  const parts = Object.entries(go.if ?? {}).map(
    ([name, value]) => `${titles[name] ?? name}: ${conditionWords(value, titles)}`,
  );
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

/** What an input must be: yes or no, or within limits, each a number or what a function is set to. */
function conditionWords(value: unknown, titles: Record<string, string>): string {
  if (typeof value !== "object" || value === null) return value ? "yes" : "no";
  const { from, below } = value as { from?: unknown; below?: unknown };
  const limit = (each: unknown) => {
    if (typeof each !== "object" || each === null) return String(each);
    const { function: name, plus } = each as { function?: unknown; plus?: unknown };
    return `${titles[String(name)] ?? String(name)}${typeof plus === "number" ? ` ${plus < 0 ? "−" : "+"} ${Math.abs(plus)}` : ""}`;
  };
  const told = [from !== undefined && `${limit(from)} or more`, below !== undefined && `below ${limit(below)}`];
  return told.filter(Boolean).join(" and ") || "?";
}

/** Which of a state's arrows lead there: "1", or "1, 3". */
function numbersOf(state: State | undefined, to: string): string {
  return (state?.go ?? []).flatMap((go, index) => (go.to === to ? [index + 1] : [])).join(",");
}
