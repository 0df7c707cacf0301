import { useState, type MouseEvent } from "react";
import type { Grade, Matrix } from "./api";
import { GRADE_WORDS } from "./words";

const CELL = 14;
const NAMES = 150;
const TOP = 120;

/** Who serves whom: machines down in the one ink, pieces across in the other; where one serves the other, they overprint. */
export function Cover({ matrix }: { matrix: Matrix }) {
  const [at, setAt] = useState<{ kind?: number; piece?: number }>({});
  const { kinds, pieces, grades } = matrix;
  const width = NAMES + pieces.length * CELL + 8;
  const height = TOP + kinds.length * CELL + 8;
  const look = (event: MouseEvent<SVGSVGElement>) => {
    const { left, top } = event.currentTarget.getBoundingClientRect();
    setAt(placeOf(event.clientX - left, event.clientY - top, matrix));
  };
  return (
    <div className="flex flex-col gap-2">
      <p aria-live="polite" className="min-h-12">
        <Told matrix={matrix} at={at} />
      </p>
      <div className="overflow-auto border border-rule" tabIndex={0} role="region" aria-label="The picture">
        <svg
          width={width}
          height={height}
          viewBox={`0 0 ${width} ${height}`}
          role="img"
          aria-label={`${kinds.length} kinds of machine against ${pieces.length} pieces; the list below says the same`}
          onPointerMove={look}
          onClick={look}
        >
          {at.kind !== undefined && (
            <rect x={0} y={TOP + at.kind * CELL} width={width} height={CELL} fill="var(--original-wash)" />
          )}
          {at.piece !== undefined && (
            <rect x={NAMES + at.piece * CELL} y={0} width={CELL} height={height} fill="var(--replacement-wash)" />
          )}
          {kinds.map((each, row) => (
            <text
              key={row}
              x={NAMES - 6}
              y={TOP + row * CELL + 11}
              textAnchor="end"
              fontSize={11}
              fill="var(--original)"
              className="font-mono"
            >
              {each.board}
            </text>
          ))}
          {pieces.map((each, column) => (
            <text
              key={column}
              transform={`translate(${NAMES + column * CELL + 11} ${TOP - 6}) rotate(-90)`}
              fontSize={11}
              fill="var(--replacement)"
              className="font-mono"
            >
              {each.piece}
            </text>
          ))}
          {grades.map(({ kind, piece, grade }) => (
            <Mark key={`${kind} ${piece}`} x={NAMES + piece * CELL} y={TOP + kind * CELL} grade={grade} />
          ))}
        </svg>
      </div>
      <ul className="flex flex-wrap gap-x-5 gap-y-1 text-sm" aria-label="What the marks mean">
        {(["proved", "work", "listed"] as const).map((grade) => (
          <li key={grade} className="flex items-center gap-1.5">
            <svg width={CELL} height={CELL} aria-hidden="true">
              <Mark x={0} y={0} grade={grade} />
            </svg>
            {GRADE_WORDS[grade]}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** How well a piece serves: overprinted, half of both inks, or only the piece's own outline. */
function Mark({ x, y, grade }: { x: number; y: number; grade: Grade }) {
  const [left, top, size] = [x + 2, y + 2, CELL - 4];
  if (grade === "proved") return <rect x={left} y={top} width={size} height={size} fill="var(--both)" />;
  if (grade === "work")
    return (
      <>
        <path d={`M${left} ${top + size}V${top}L${left + size} ${top + size}Z`} fill="var(--both)" />
        <rect x={left + 0.5} y={top + 0.5} width={size - 1} height={size - 1} fill="none" stroke="var(--both)" />
      </>
    );
  return (
    <circle
      cx={x + CELL / 2}
      cy={y + CELL / 2}
      r={size / 2 - 0.7}
      fill="none"
      stroke="var(--replacement)"
      strokeWidth={1.4}
    />
  );
}

function placeOf(x: number, y: number, { kinds, pieces }: Matrix): { kind?: number; piece?: number } {
  const kind = Math.floor((y - TOP) / CELL);
  const piece = Math.floor((x - NAMES) / CELL);
  return {
    ...(kind >= 0 && kind < kinds.length ? { kind } : {}),
    ...(piece >= 0 && piece < pieces.length ? { piece } : {}),
  };
}

function Told({ matrix, at }: { matrix: Matrix; at: { kind?: number; piece?: number } }) {
  const kind = at.kind === undefined ? undefined : matrix.kinds[at.kind];
  const piece = at.piece === undefined ? undefined : matrix.pieces[at.piece];
  if (!kind && !piece) return <span className="text-faint">Touch a place: it says who serves whom.</span>;
  const grade = matrix.grades.find((each) => each.kind === at.kind && each.piece === at.piece)?.grade;
  return (
    <>
      {kind && (
        <>
          <span className="font-mono text-original">{kind.board}</span> in {kind.machines}{" "}
          {kind.machines === 1 ? "machine" : "machines"}
        </>
      )}
      {kind && piece && ": "}
      {piece && (
        <>
          <span className="font-mono text-replacement">{piece.piece}</span>{" "}
          {kind ? (grade ? GRADE_WORDS[grade] : "does not serve it") : `serves ${piece.machines} machines`}
          {piece.held > 0 && `; ${piece.held} in the vans`}
        </>
      )}
    </>
  );
}
