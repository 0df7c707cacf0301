import type { ReactNode } from "react";
import { maskOf } from "./colours";
import type { BoardDocument } from "./types";

type Props = {
  document: BoardDocument;
  /** What the drawing shows, for whoever cannot see it. */
  label: string;
  /** Colour of the outline. */
  ink: string;
  round?: boolean;
  /** How much of the mask's colour shows, in per cent: a tint where something is read on it. */
  mask: number;
  className?: string;
  /** The address of a picture that lies under the drawing. */
  under?: string;
  children: ReactNode;
};

/** A board's outline in millimetres with its holes, in the colour of its mask. */
export function BoardFrame({ document, label, ink, round = false, mask, className, under, children }: Props) {
  const [width, height] = sizeOf(document);
  const colour = maskOf(document.look?.colour);
  return (
    <svg viewBox={`-2 -2 ${width + 4} ${height + 4}`} role="img" aria-label={label} className={className}>
      <rect
        width={width}
        height={height}
        rx={round ? 5 : 0}
        style={{ fill: colour ? `color-mix(in srgb, ${colour} ${mask}%, var(--raised))` : "var(--raised)" }}
        stroke={ink}
        strokeWidth={1.4}
      />
      {under && (
        <image href={under} width={width} height={height} preserveAspectRatio="none" opacity={0.45} aria-hidden />
      )}
      {(document.holes ?? []).map((hole, index) => (
        <circle
          key={index}
          cx={hole.at[0]}
          cy={height - hole.at[1]}
          r={hole.diameter_mm / 2}
          fill="var(--ground)"
          stroke={ink}
          strokeWidth={0.7}
        />
      ))}
      {children}
    </svg>
  );
}

/** Width and height in millimetres. */
export function sizeOf(document: BoardDocument): [number, number] {
  return document.size_mm ?? [160, 110];
}
