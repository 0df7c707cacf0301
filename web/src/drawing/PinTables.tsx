type Pin = { place: string; mark: string; title: string };
type Wire = { from: string; to: string | null; treatment: string };
type Props = { original: Pin[]; replacement: Pin[]; wires: Wire[] };

const ROW = 26;
const LEFT = 250;
const RIGHT = 430;
const WIDTH = 680;

/** Two pin tables in two inks, with a line for every wire: straight where it moves whole, dashed where hands are needed. */
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
          if (wire.to === null)
            return (
              <g key={index} stroke="var(--original)" strokeWidth="2" fill="none">
                <path d={`M${LEFT} ${from} h26`} />
                <path d={`M${LEFT + 20} ${from - 6} l12 12 m0 -12 l-12 12`} />
              </g>
            );
          const to = y(replacement, wire.to);
          return (
            <path
              key={index}
              d={`M${LEFT} ${from} C${LEFT + 80} ${from} ${RIGHT - 80} ${to} ${RIGHT} ${to}`}
              fill="none"
              stroke="var(--both)"
              strokeWidth={wire.treatment === "adapter" ? 3 : 1.6}
              strokeDasharray={wire.treatment === "single" ? "7 4" : wire.treatment === "new end" ? "2 4" : undefined}
            />
          );
        })}
      </svg>
      <p className="text-sm text-faint">
        Solid: moves with its plug. Thick: through an adapter. Dashed: moved singly. Dotted: gets a new end. Crossed:
        tied back, or must not go on.
      </p>
    </div>
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
