import type { BoardDocument } from "./types";

type Hole = { from_left_mm: number; from_bottom_mm: number; diameter_mm: number };
type Props = {
  original: BoardDocument & { part_number?: string };
  replacement: BoardDocument & { part_number?: string };
  turn: number;
  shift: [number, number];
  newHoles: Hole[];
};

/** Both boards' outlines and holes on each other in two inks; holes to drill with their measures from two edges. */
export function Overlay({ original, replacement, turn, shift, newHoles }: Props) {
  const [w, h] = original.size_mm ?? [160, 110];
  const [rw, rh] = replacement.size_mm ?? [160, 110];
  const [tw, th] = turn % 180 === 0 ? [rw, rh] : [rh, rw];
  const left = Math.min(0, shift[0]) - 14;
  const right = Math.max(w, shift[0] + tw) + 14;
  const bottom = Math.min(0, shift[1]) - 14;
  const top = Math.max(h, shift[1] + th) + 14;
  const y = (mm: number) => top - mm;
  const place = ([a, b]: [number, number]): [number, number] => {
    const turned: [number, number] =
      turn === 90 ? [rh - b, a] : turn === 180 ? [rw - a, rh - b] : turn === 270 ? [b, rw - a] : [a, b];
    return [turned[0] + shift[0], turned[1] + shift[1]];
  };
  return (
    <svg
      viewBox={`${left} 0 ${right - left} ${top - bottom}`}
      className="block h-auto w-full max-w-xl"
      role="img"
      aria-label={`Outlines laid on each other, the replacement turned ${turn}° and moved ${shift[0]} mm to the right and ${shift[1]} mm up; ${newHoles.length} holes to drill`}
    >
      <rect x={0} y={y(h)} width={w} height={h} fill="none" stroke="var(--original)" strokeWidth={1.6} />
      <rect
        x={shift[0]}
        y={y(shift[1] + th)}
        width={tw}
        height={th}
        rx={5}
        fill="none"
        stroke="var(--replacement)"
        strokeWidth={1.6}
        strokeDasharray="7 3"
      />
      {(original.holes ?? []).map((hole, index) => (
        <rect
          key={index}
          x={hole.at[0] - hole.diameter_mm / 2}
          y={y(hole.at[1]) - hole.diameter_mm / 2}
          width={hole.diameter_mm}
          height={hole.diameter_mm}
          fill="none"
          stroke="var(--original)"
          strokeWidth={1}
        />
      ))}
      {(replacement.holes ?? []).map((hole, index) => {
        const [a, b] = place(hole.at);
        return (
          <circle
            key={index}
            cx={a}
            cy={y(b)}
            r={hole.diameter_mm / 2}
            fill="none"
            stroke="var(--replacement)"
            strokeWidth={1}
          />
        );
      })}
      {newHoles.map((hole, index) => (
        <g key={index} stroke="var(--text)" strokeWidth={0.7} className="font-mono">
          <path d={`M0 ${y(hole.from_bottom_mm)}H${hole.from_left_mm}V${y(0)}`} fill="none" strokeDasharray="2 2" />
          <path d={`M${hole.from_left_mm - 6} ${y(hole.from_bottom_mm)}h12m-6 -6v12`} strokeWidth={1.2} />
          <text
            x={hole.from_left_mm + 4}
            y={y(hole.from_bottom_mm) - 4}
            fontSize={6.5}
            fill="var(--text)"
            stroke="none"
          >
            {index + 1}
          </text>
        </g>
      ))}
    </svg>
  );
}
