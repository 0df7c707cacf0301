import { BankGlyph, bankSize } from "./BankGlyph";
import { seen } from "./hanging";
import { places, type Element, type Placed, type Position, type Side } from "./types";

type FaceProps = { element: Element; placed: Placed; value: Position | undefined; side: Side; w: number; h: number };

/** What can be set, standing as it was read or is to be set. */
export function ElementFace({ element, placed, value, side, w, h }: FaceProps) {
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
