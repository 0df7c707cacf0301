import { points, seen, type Hanging } from "./hanging";
import type { Side } from "./types";

type Props = {
  marks: string[];
  hanging: Hanging;
  locked?: boolean[];
  side: Side;
  /** Whether each slot bears its number. */
  numbers?: boolean;
};

const STEP = 10;
const DEEP = 26;
const NUMBERS = 9;

/** A switch bank as it hangs: a slot a place in the order in which the eye meets them, its slider where it points. */
export function BankGlyph({ marks, hanging, locked = [], side, numbers = false }: Props) {
  const down = hanging.axis === "down";
  const [width, height] = bankSize(marks.length, hanging);
  const ink = `var(--${side})`;
  const order = seen(
    marks.map((_, index) => index),
    hanging,
  );
  return (
    <g>
      <rect
        width={width}
        height={height}
        rx={side === "original" ? 0 : 4}
        fill="var(--raised)"
        stroke={ink}
        strokeWidth={1.6}
      />
      {order.map((index, slot) => {
        const mark = marks[index] ?? "?";
        const way = points(mark, hanging);
        const fill = locked[index] ? "var(--edge)" : ink;
        const far = way === "down" || way === "right" ? 9 : 0;
        const at = 2 + slot * STEP;
        return (
          <g key={index} transform={down ? `translate(0 ${at})` : `translate(${at} 0)`}>
            <rect
              x={down ? 4 : 2}
              y={down ? 2 : 4}
              width={down ? 18 : 6}
              height={down ? 6 : 18}
              fill="var(--ground)"
              stroke="var(--edge)"
              strokeWidth={0.8}
            />
            {way === undefined ? (
              <text
                x={down ? 13 : 5}
                y={down ? 8.5 : 17}
                textAnchor="middle"
                fontSize={down ? 9 : 11}
                fill="var(--text)"
              >
                ?
              </text>
            ) : (
              <rect
                x={down ? 4 + far : 2}
                y={down ? 2 : 4 + far}
                width={down ? 9 : 6}
                height={down ? 6 : 9}
                fill={fill}
              />
            )}
            {numbers && (
              <text
                x={down ? DEEP + 5 : 5}
                y={down ? 8 : DEEP + 7.5}
                textAnchor="middle"
                fontSize={7.5}
                fill="var(--text)"
                className="font-mono"
              >
                {index + 1}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

/** Width and height of a bank as it is drawn, with its numbers where they are shown. */
export function bankSize(count: number, hanging: Hanging, numbers = false): [number, number] {
  const long = count * STEP + 4;
  const deep = DEEP + (numbers ? NUMBERS : 0);
  return hanging.axis === "down" ? [deep, long] : [long, deep];
}
