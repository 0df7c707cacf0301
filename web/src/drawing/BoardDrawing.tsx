import { BankGlyph, bankSize } from "./BankGlyph";
import { seen } from "./hanging";
import {
  places,
  type BoardDocument,
  type Element,
  type Placed,
  type Position,
  type Positions,
  type Side,
} from "./types";

type Props = {
  name: string;
  document: BoardDocument;
  elements: Element[];
  positions: Positions;
  side: Side;
  selected?: string;
  onSelect?: (element: string) => void;
};

/** The board as it hangs in the machine, in millimetres, with its elements standing as recorded. */
export function BoardDrawing({ name, document, elements, positions, side, selected, onSelect }: Props) {
  const [width, height] = document.size_mm ?? [160, 110];
  const ink = `var(--${side})`;
  const layout = document.layout ?? [];
  const drawn = layout.filter((each) => elements.some((element) => element.id === each.ref));
  const words = elements.map((e) => `${e.id} ${positions[e.id] ?? "not read"}`).join(", ");
  return (
    <svg
      viewBox={`-2 -2 ${width + 4} ${height + 4}`}
      className="block h-auto w-full max-w-xl"
      role="img"
      aria-label={`${name}: ${width} by ${height} mm. ${words}.`}
    >
      <rect
        width={width}
        height={height}
        rx={side === "original" ? 0 : 5}
        fill="var(--raised)"
        stroke={ink}
        strokeWidth={1.4}
      />
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
      {layout.map((placed) => {
        const element = elements.find((each) => each.id === placed.ref);
        const [w, h] = placed.size ?? [8, 8];
        const [x, y] = [placed.at[0], height - placed.at[1] - h];
        const turn = placed.turn ? `rotate(${-placed.turn} ${w / 2} ${h / 2})` : "";
        return (
          <g
            key={placed.ref}
            transform={`translate(${x} ${y}) ${turn}`}
            onClick={element && onSelect ? () => onSelect(element.id) : undefined}
            className={element && onSelect ? "cursor-pointer" : ""}
          >
            {element ? (
              <ElementFace element={element} placed={placed} value={positions[element.id]} side={side} w={w} h={h} />
            ) : (
              <PartFace placed={placed} document={document} w={w} h={h} />
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
        );
      })}
      {drawn.map((placed) => (
        <text
          key={placed.ref}
          x={placed.at[0]}
          y={height - placed.at[1] - (placed.size?.[1] ?? 8) - 3.6}
          fontSize={5}
          fill="var(--text)"
          className="font-mono"
        >
          {placed.ref}
        </text>
      ))}
    </svg>
  );
}

type FaceProps = { element: Element; placed: Placed; value: Position | undefined; side: Side; w: number; h: number };

function ElementFace({ element, placed, value, side, w, h }: FaceProps) {
  const ink = `var(--${side})`;
  if (element.kind === "dip") {
    const marks = places(element, value);
    // the part around the bank is turned as it hangs; the bank is drawn as it is seen, so that is turned back
    const turn = placed.turn ?? 0;
    const upright = Math.round(turn / 90) % 2 !== 0;
    const [wide, high] = upright ? [h, w] : [w, h];
    const [width, height] = bankSize(marks.length, element.hanging);
    const scale = Math.min(wide / width, high / height);
    return (
      <g transform={`rotate(${turn} ${w / 2} ${h / 2}) translate(${(w - wide) / 2} ${(h - high) / 2}) scale(${scale})`}>
        <BankGlyph
          marks={marks}
          hanging={element.hanging}
          side={side}
          locked={element.points.map((point) => element.locked.includes(point))}
        />
      </g>
    );
  }
  if (element.kind === "thumbwheel")
    return <WheelFace marks={seen(places(element, value), element.hanging)} ink={ink} w={w} h={h} />;
  const round = element.kind === "rotary" || element.kind === "trimmer";
  const index = element.values.findIndex((each) => each === value);
  const angle = round
    ? (element.kind === "trimmer" ? -135 : 0) +
      (index * (element.kind === "trimmer" ? 270 : 360)) /
        Math.max(1, element.values.length - (element.kind === "trimmer" ? 1 : 0))
    : 0;
  const radius = Math.min(w, h) / 2;
  return (
    <g>
      {round ? (
        <>
          <circle cx={w / 2} cy={h / 2} r={radius} fill="var(--ground)" stroke={ink} strokeWidth={1} />
          {index >= 0 && (
            <path
              d={`M${w / 2} ${h / 2}V${h / 2 - radius + 1}`}
              stroke={ink}
              strokeWidth={1.6}
              transform={`rotate(${angle} ${w / 2} ${h / 2})`}
            />
          )}
        </>
      ) : (
        <rect width={w} height={h} fill="var(--ground)" stroke={ink} strokeWidth={1} />
      )}
      <text
        x={w / 2}
        y={round ? h + 5 : h / 2 + 1.8}
        textAnchor="middle"
        fontSize={4.6}
        fill="var(--text)"
        className="font-mono"
      >
        {value === undefined ? "–" : value}
      </text>
    </g>
  );
}

/** Windows side by side, each with its digit. */
function WheelFace({ marks, ink, w, h }: { marks: string[]; ink: string; w: number; h: number }) {
  const width = w / marks.length;
  return marks.map((mark, index) => (
    <g key={index} transform={`translate(${index * width} 0)`}>
      <rect width={width} height={h} fill="var(--ground)" stroke={ink} strokeWidth={1} />
      <text
        x={width / 2}
        y={h / 2 + 2}
        textAnchor="middle"
        fontSize={Math.min(6, width)}
        fill="var(--text)"
        className="font-mono"
      >
        {mark}
      </text>
    </g>
  ));
}

function PartFace({ placed, document, w, h }: { placed: Placed; document: BoardDocument; w: number; h: number }) {
  const plug = document.connectors?.find((each) => each.id === placed.ref);
  const round = placed.ref === "lamp" || placed.ref === "button";
  return (
    <g stroke="var(--edge)" strokeWidth={0.7} fill="var(--ground)">
      {round ? <circle cx={w / 2} cy={h / 2} r={w / 2} /> : <rect width={w} height={h} />}
      {plug?.pins.map((_, index) => (
        <circle
          key={index}
          cx={((index + 0.5) * w) / plug.pins.length}
          cy={h / 2}
          r={1.1}
          fill="var(--edge)"
          stroke="none"
        />
      ))}
      {!round && (
        <text x={1} y={plug ? h + 4.4 : h - 1.4} fontSize={4} fill="var(--faint)" stroke="none" className="font-mono">
          {placed.ref}
        </text>
      )}
    </g>
  );
}
