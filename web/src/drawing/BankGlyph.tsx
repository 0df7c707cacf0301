import type { Side } from "./types";

type Props = {
  marks: string[];
  onSide?: string;
  reversed?: boolean;
  locked?: boolean[];
  side: Side;
  /** Places that differ from the other record, or must be moved. */
  moved?: boolean[];
};

const STEP = 10;

/** A switch bank drawn small: a slot a place, its slider on the side where this board has on. */
export function BankGlyph({ marks, onSide = "top", reversed = false, locked = [], side, moved = [] }: Props) {
  const onTop = onSide !== "bottom";
  const width = marks.length * STEP + 4;
  const ink = `var(--${side})`;
  return (
    <g>
      <rect
        width={width}
        height={26}
        rx={side === "original" ? 0 : 4}
        fill="var(--raised)"
        stroke={ink}
        strokeWidth={1.6}
      />
      {marks.map((mark, index) => {
        const slot = reversed ? marks.length - 1 - index : index;
        const x = 2 + slot * STEP;
        const up = (mark === "1") === onTop;
        return (
          <g key={index} transform={`translate(${x} 0)`}>
            <rect x={2} y={4} width={6} height={18} fill="var(--ground)" stroke="var(--edge)" strokeWidth={0.8} />
            {mark === "?" ? (
              <text x={5} y={17} textAnchor="middle" fontSize={11} fill="var(--text)">
                ?
              </text>
            ) : (
              <rect x={2} y={up ? 4 : 13} width={6} height={9} fill={locked[index] ? "var(--edge)" : ink} />
            )}
            {moved[index] && <rect x={1} y={23.5} width={8} height={1.8} fill={ink} />}
          </g>
        );
      })}
    </g>
  );
}

export function bankWidth(count: number) {
  return count * STEP + 4;
}
