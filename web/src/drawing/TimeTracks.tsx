import { timeWords } from "@/ui/numbers";
import type { Schemas } from "@/api/client";
import {
  bandsOf,
  heightOf,
  LEVEL,
  levelScale,
  onAlone,
  valueAt,
  type Alone,
  type Scale,
  type TrackedInput,
} from "./levelLine";
import { INKS, OutputBand } from "./OutputBand";
import type { Shown } from "./shown";
import { useRef, useState, type MouseEvent, type PointerEvent } from "react";

type Step = Schemas["StepShown"];
type Threshold = Schemas["ThresholdShown"];
type Round = Schemas["RoundShown"];

type Props = {
  inputs: TrackedInput[];
  outputs: { id: string; title: string }[];
  /** The outputs by which boards are told apart; without it all of them. */
  compared?: string[];
  steps: Step[];
  original: Shown[];
  replacement: Shown[];
  /** Where the boards read levels: dashed lines in the ink of who does. */
  thresholds?: Threshold[];
  /** Boards that go round without end, and from when on. */
  rounds?: Round[];
  until: number;
  /** What was measured on the machine, laid on as a third, dotted mark. */
  measured?: Shown[];
  /** Until when it was measured, where that is not the end: a run under way. */
  measuredUntil?: number;
  /** Where the boards part, in seconds. */
  parting?: number;
  /** The moment that is looked at, in seconds. */
  cursor?: number;
  onLook?: (at: number) => void;
  /** A change dragged to another time; one of a level to another value too. */
  onMove?: (index: number, at: number, value?: number) => void;
};

type Dragged = { index: number; input: string; top: number; scale?: Scale };

const LEFT = 148;
const WIDTH = 760;
const LINE = 22;
const BAND = 26;

/** Inputs as thin lines, outputs as tracks of two inks laid on each other; where both are on they print black. */
export function TimeTracks(props: Props) {
  const { inputs, outputs, steps, original, replacement, measured, until, parting, cursor, onLook, onMove } = props;
  const measuredUntil = props.measuredUntil ?? until;
  const svg = useRef<SVGSVGElement>(null);
  const [dragged, setDragged] = useState<Dragged | null>(null);
  const x = (at: number) => LEFT + (Math.min(at, until) / Math.max(until, 0.001)) * (WIDTH - LEFT - 12);
  const rounds = props.rounds ?? [];
  const known = Math.min(until, ...rounds.map((each) => each.at));
  const alone = onAlone(original, replacement, props.compared ?? outputs.map((each) => each.id), known);
  const used = inputs.filter((input) => steps.some((step) => input.id in step.set));
  const thresholdsOf = (input: TrackedInput) => (props.thresholds ?? []).filter((each) => each.level === input.id);
  const lines = used.map((input) => (input.level ? LEVEL : LINE));
  const lineTop = (row: number) => 26 + lines.slice(0, row).reduce((sum, each) => sum + each, 0);
  const top = lineTop(used.length);
  const height = top + outputs.length * BAND + 22;

  const timeAt = (event: PointerEvent | MouseEvent) => {
    const box = svg.current?.getBoundingClientRect();
    if (!box) return 0;
    const at = (((event.clientX - box.left) / box.width) * WIDTH - LEFT) / (WIDTH - LEFT - 12);
    return Math.max(0, Math.min(until, Math.round(at * until * 2) / 2));
  };
  const drag = (event: PointerEvent) => {
    const box = svg.current?.getBoundingClientRect();
    if (!dragged || !box) return;
    const y = ((event.clientY - box.top) / box.height) * height;
    if (dragged.scale) onMove?.(dragged.index, timeAt(event), valueAt(dragged.scale, y - dragged.top));
    else onMove?.(dragged.index, timeAt(event));
  };

  return (
    <div className="overflow-x-auto border-y border-rule bg-raised" tabIndex={0} role="region" aria-label="Time tracks">
      <svg
        ref={svg}
        viewBox={`0 0 ${WIDTH} ${height}`}
        className="block min-w-[620px] touch-pan-x"
        onPointerMove={drag}
        onPointerUp={() => setDragged(null)}
        onClick={(event) => onLook?.(timeAt(event))}
        onPointerLeave={() => setDragged(null)}
      >
        <title>Outputs of both boards over {timeWords(until)}</title>
        {ticks(until).map((at) => (
          <g key={at}>
            <path d={`M${x(at)} 18V${height - 18}`} stroke="var(--rule)" strokeWidth={1} />
            <text x={x(at)} y={12} textAnchor="middle" fontSize={11} fill="var(--faint)">
              {timeWords(at)}
            </text>
          </g>
        ))}
        {used.map((input, row) => (
          <InputLine
            key={input.id}
            input={input}
            y={lineTop(row)}
            steps={steps}
            thresholds={thresholdsOf(input)}
            // what is dragged stays where the hand is: the scale is drawn anew when it is let go
            scale={(dragged?.input === input.id && dragged.scale) || levelScale(input, steps, thresholdsOf(input))}
            alone={alone}
            x={x}
            until={until}
            onGrab={
              onMove &&
              ((index, scale) =>
                setDragged({ index, input: input.id, top: lineTop(row), scale: input.level ? scale : undefined }))
            }
          />
        ))}
        {outputs.map((output, row) => (
          <OutputBand
            key={output.id}
            output={output}
            y={top + row * BAND}
            original={original}
            replacement={replacement}
            measured={measured}
            measuredUntil={measuredUntil}
            rounds={rounds}
            x={x}
            until={until}
          />
        ))}
        {measuredUntil < until && (
          <path d={`M${x(measuredUntil)} 18V${height - 18}`} stroke="var(--text)" strokeWidth={1.2} />
        )}
        {cursor !== undefined && (
          <path
            d={`M${x(cursor) - 6} 15h12l-6 7zM${x(cursor)} 18V${height - 18}`}
            fill="var(--text)"
            stroke="var(--text)"
            strokeWidth={1.2}
          />
        )}
        {parting !== undefined && (
          <g>
            <path d={`M${x(parting)} 18V${height - 16}`} stroke="var(--text)" strokeWidth={2} strokeDasharray="5 4" />
            <text
              x={Math.min(x(parting) + 4, WIDTH - 80)}
              y={height - 5}
              fontSize={12}
              fontWeight={650}
              fill="var(--text)"
            >
              they part here
            </text>
          </g>
        )}
      </svg>
    </div>
  );
}

/** Steps between marks that people count in: seconds, then whole minutes, then whole hours. */
const STEPS_S = [0.1, 0.2, 0.5, 1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 900, 1800, 3600, 7200, 21_600, 86_400];
const MOST_MARKS = 7;

/** Where marks of time stand, up to an end in seconds. */
export function ticks(until: number): number[] {
  const step = STEPS_S.find((each) => until / each <= MOST_MARKS) ?? until / MOST_MARKS;
  return Array.from({ length: Math.floor(until / step) + 1 }, (_, index) => Number((index * step).toPrecision(6)));
}

type InputProps = {
  input: TrackedInput;
  y: number;
  steps: Step[];
  thresholds: Threshold[];
  scale: Scale;
  alone: Alone[];
  x: (at: number) => number;
  until: number;
  onGrab?: (index: number, scale: Scale) => void;
};

/** Of several changes at one instant the last one is written beside the line. */
function lastOfItsTime(grip: { at: number }, index: number, all: { at: number }[]) {
  return all[index + 1]?.at !== grip.at;
}

const LETTERS = 10.5;

/** Heights for words beside lines that come from the lowest upwards, none written over another. */
function spread(heights: number[]) {
  let last = Infinity;
  return heights.map((each) => (last = Math.min(each, last - LETTERS)));
}

function InputLine({ input, y, steps, thresholds, scale, alone, x, until, onGrab }: InputProps) {
  const scaled = (value: number) => heightOf(scale, value);
  const height = (value: boolean | number) => (typeof value === "number" ? scaled(value) : value ? 4 : 16);
  const middle = input.level ? LEVEL / 2 - 1 : 10;
  const written = spread(thresholds.map((each) => scaled(each.at) + 4));
  let path = `M${x(0)} ${y + height(input.rest)}`;
  const grips: { index: number; at: number; said: string; y: number }[] = [];
  steps.forEach((step, index) => {
    const next = step.set[input.id];
    if (next === undefined) return;
    grips.push({
      index,
      at: step.at,
      said: typeof next === "number" ? String(next) : "",
      y: typeof next === "number" ? scaled(next) : middle,
    });
    path += `H${x(step.at)}V${y + height(next)}`;
  });
  path += `H${x(until)}`;
  return (
    <g>
      <text x={4} y={y + middle + 4} fontSize={12} fill="var(--faint)">
        {input.title}
      </text>
      {bandsOf(input, steps, thresholds, alone, until).map((each) => (
        <rect
          key={`${each.from} ${each.low}`}
          x={x(each.from)}
          width={Math.max(1.5, x(each.to) - x(each.from))}
          y={y + scaled(each.high)}
          height={scaled(each.low) - scaled(each.high)}
          fill={INKS[each.side]}
          opacity={0.3}
        />
      ))}
      {thresholds.map((each, index) => (
        <g key={each.at}>
          <path
            d={`M${x(0)} ${y + scaled(each.at)}H${x(until)}`}
            stroke={INKS[each.original && each.replacement ? "both" : each.original ? "original" : "replacement"]}
            strokeWidth={1.2}
            strokeDasharray={each.original ? "6 3" : "2 3"}
          />
          <text x={LEFT - 6} y={y + (written[index] ?? 0)} textAnchor="end" fontSize={LETTERS} fill="var(--faint)">
            {each.at}
          </text>
        </g>
      ))}
      <path d={path} fill="none" stroke="var(--text)" strokeWidth={1.2} />
      {grips.filter(lastOfItsTime).map((grip) => (
        <text
          key={grip.index}
          x={x(grip.at) + 8}
          y={y + grip.y - 5}
          fontSize={11}
          paintOrder="stroke"
          stroke="var(--raised)"
          strokeWidth={3}
          fill="var(--faint)"
        >
          {grip.said}
        </text>
      ))}
      {onGrab &&
        grips.map((grip) => (
          <g
            key={grip.index}
            className={`${input.level ? "cursor-move" : "cursor-ew-resize"} touch-none`}
            onPointerDown={() => onGrab(grip.index, scale)}
          >
            <rect x={x(grip.at) - 14} y={y + grip.y - 12} width={28} height={26} fill="transparent" />
            <circle
              cx={x(grip.at)}
              cy={y + grip.y}
              r={4.5}
              fill="var(--ground)"
              stroke="var(--text)"
              strokeWidth={1.4}
            />
          </g>
        ))}
    </g>
  );
}
