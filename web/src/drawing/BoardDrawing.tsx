import { BoardFrame, sizeOf } from "./BoardFrame";
import { ElementFace } from "./ElementFace";
import { onArrow } from "./hanging";
import { PartFace } from "./PartFace";
import type { BoardDocument, Element, Positions, Side } from "./types";

type Props = {
  name: string;
  document: BoardDocument;
  elements: Element[];
  positions: Positions;
  side: Side;
  selected?: string;
  onSelect?: (element: string) => void;
  /** The address of a picture that lies under it. */
  under?: string;
};

const TINT = 22;

/** The board as it hangs in the machine, in millimetres, with its elements standing as recorded. */
export function BoardDrawing({ name, document, elements, positions, side, selected, onSelect, under }: Props) {
  const [width, height] = sizeOf(document);
  const words = elements.map((e) => `${e.id} ${positions[e.id] ?? "not read"}`).join(", ");
  return (
    <BoardFrame
      document={document}
      label={`${name}: ${width} by ${height} mm. ${words}.`}
      ink={`var(--${side})`}
      round={side === "replacement"}
      mask={TINT}
      under={under}
      className="block h-auto w-full max-w-xl"
    >
      {(document.layout ?? []).map((placed) => {
        const element = elements.find((each) => each.id === placed.ref);
        const [w, h] = placed.size ?? [8, 8];
        const [x, y] = [placed.at[0], height - placed.at[1] - h];
        // what is turned upright has its corner elsewhere: its name stands over it as it is seen
        const upright = Math.round((placed.turn ?? 0) / 90) % 2 !== 0;
        const [left, top] = upright ? [x + (w - h) / 2, y + (h - w) / 2] : [x, y];
        const turn = placed.turn ? `rotate(${-placed.turn} ${w / 2} ${h / 2})` : "";
        return (
          <g key={placed.ref}>
            <g
              transform={`translate(${x} ${y}) ${turn}`}
              onClick={element && onSelect ? () => onSelect(element.id) : undefined}
              className={element && onSelect ? "cursor-pointer" : ""}
            >
              {element ? (
                <ElementFace element={element} placed={placed} value={positions[element.id]} side={side} w={w} h={h} />
              ) : (
                <PartFace name={placed.ref} document={document} w={w} h={h} />
              )}
              {selected === placed.ref && (
                <rect
                  x={-2}
                  y={-2}
                  width={w + 4}
                  height={h + 4}
                  fill="none"
                  stroke="var(--text)"
                  strokeWidth={1.2}
                  strokeDasharray="3 2"
                />
              )}
              {element && onSelect && <rect x={-5} y={-6} width={w + 10} height={h + 12} fill="transparent" />}
            </g>
            {element && (
              <text x={left} y={top - 3.6} fontSize={5} fill="var(--text)" className="font-mono">
                {placed.ref}
                {element.kind === "dip" && <tspan fill="var(--faint)"> {onArrow(element.hanging)}</tspan>}
              </text>
            )}
          </g>
        );
      })}
    </BoardFrame>
  );
}
