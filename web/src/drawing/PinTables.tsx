import { Lead } from "./Lead";

type Pin = { place: string; mark: string; title: string };
type Wire = { from: string; to: string | null; treatment: string; tag: string; colour: string };
type Props = { original: Pin[]; replacement: Pin[]; wires: Wire[] };

const ROW = 26;
const LEFT = 250;
const RIGHT = 430;
const WIDTH = 680;
const TAG_AT = LEFT + 22;
const DASHES: Record<string, string> = { single: "12 4", "new end": "4 5" };

/** Two pin tables in two inks with the harness between: every wire in its colours with its tag, those of a plug tied together. */
export function PinTables({ original, replacement, wires }: Props) {
  const height = Math.max(original.length, replacement.length) * ROW + 10;
  const y = (pins: Pin[], place: string) => pins.findIndex((pin) => pin.place === place) * ROW + ROW / 2 + 5;
  const words = wires
    .map((wire) => `${wire.from} ${wire.to ? `to ${wire.to}` : "has no place"}, ${wire.treatment}`)
    .join("; ");
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Pin tables">
      <svg
        viewBox={`0 0 ${WIDTH} ${height}`}
        role="img"
        aria-label={`Wires: ${words}`}
        className="w-full min-w-[34rem]"
      >
        <Table pins={original} x={0} ink="var(--original)" end />
        <Table pins={replacement} x={RIGHT} ink="var(--replacement)" />
        {wires.map((wire, index) => {
          const from = y(original, wire.from);
          const to = wire.to === null ? null : y(replacement, wire.to);
          return (
            <g key={index}>
              <Lead
                d={
                  to === null
                    ? `M${LEFT} ${from} h${TAG_AT - LEFT + 34}`
                    : `M${LEFT} ${from} C${LEFT + 110} ${from} ${RIGHT - 70} ${to} ${RIGHT} ${to}`
                }
                colour={wire.colour}
                width={wire.treatment === "adapter" ? 5 : 3}
                dashes={DASHES[wire.treatment]}
              />
              {to === null && (
                <path
                  d={`M${TAG_AT + 42} ${from - 6} l12 12 m0 -12 l-12 12`}
                  stroke="var(--original)"
                  strokeWidth="2"
                  fill="none"
                />
              )}
              {wire.tag && <Tag text={wire.tag} y={from} />}
            </g>
          );
        })}
        {together(wires, original).map((tie) => (
          <rect
            key={tie.plug}
            x={LEFT + 8}
            y={tie.first * ROW + 9}
            width={7}
            height={(tie.last - tie.first) * ROW + ROW - 8}
            rx={3}
            fill="var(--ground)"
            stroke="var(--both)"
            strokeWidth={1.4}
          />
        ))}
      </svg>
      <p className="text-sm text-faint">
        Tied together: moves with its plug. Thick: through an adapter. Dashed: moved singly. Dotted: gets a new end.
        Crossed: tied back, or must not go on. Colours and tags as they were recorded.
      </p>
    </div>
  );
}

/** The wires that move with their plug, plug by plug: the first and the last row of each. */
export function together(wires: Wire[], pins: Pin[]) {
  const rows = new Map<string, number[]>();
  for (const wire of wires) {
    if (wire.treatment !== "straight") continue;
    const plug = wire.from.slice(0, wire.from.lastIndexOf("."));
    rows.set(plug, [...(rows.get(plug) ?? []), pins.findIndex((pin) => pin.place === wire.from)]);
  }
  return [...rows].map(([plug, at]) => ({ plug, first: Math.min(...at), last: Math.max(...at) }));
}

/** A tag round a wire, near the old board, where it is read before the wire comes off. */
function Tag({ text, y }: { text: string; y: number }) {
  const shown = text.length > 6 ? `${text.slice(0, 5)}…` : text;
  const width = shown.length * 7.4 + 8;
  return (
    <g>
      <rect x={TAG_AT} y={y - 8} width={width} height={16} fill="var(--raised)" stroke="var(--edge)" />
      <text x={TAG_AT + 4} y={y + 4.5} fontSize={12} fill="var(--text)" className="font-mono">
        {shown}
      </text>
    </g>
  );
}

function Table({ pins, x, ink, end = false }: { pins: Pin[]; x: number; ink: string; end?: boolean }) {
  return (
    <g fontSize="13" fill={ink}>
      {pins.map((pin, index) => {
        const y = index * ROW + 5;
        return (
          <g key={pin.place}>
            <rect x={end ? LEFT - 8 : x} y={y + ROW / 2 - 5} width="8" height="10" rx={end ? 0 : 4} fill={ink} />
            <text x={end ? LEFT - 16 : x + 16} y={y + ROW / 2 + 5} textAnchor={end ? "end" : "start"}>
              {end ? `${short(pin.title)}  ${pin.place}` : `${pin.place}  ${short(pin.title)}`}
            </text>
          </g>
        );
      })}
    </g>
  );
}

function short(text: string): string {
  return text.length > 25 ? `${text.slice(0, 24)}…` : text;
}
