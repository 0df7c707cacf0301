import type { BoardDocument } from "./types";

const COLOURS: Record<string, string> = {
  green: "#3f6b4a",
  blue: "#3d5f8f",
  brown: "#7a5a3c",
  black: "#33302c",
  white: "#e9e5da",
};

/** A board as it is seen without reading anything: its colour, plugs, button and holes. */
export function BoardSketch({ name, sketch }: { name: string; sketch: BoardDocument }) {
  const [width, height] = sketch.size_mm ?? [160, 110];
  const colour = COLOURS[String(sketch.look?.colour ?? "")] ?? "var(--raised)";
  const light = sketch.look?.colour === "white" || !COLOURS[String(sketch.look?.colour ?? "")];
  const ink = light ? "#33302c" : "#ffffff";
  const plugs = sideBySide(sketch, width);
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="block h-auto w-full"
      role="img"
      aria-label={`${name}, drawn from its profile`}
    >
      <rect width={width} height={height} fill={colour} stroke="var(--edge)" />
      {(sketch.holes ?? []).map((hole, index) => (
        <circle key={index} cx={hole.at[0]} cy={height - hole.at[1]} r={hole.diameter_mm / 2} fill="var(--ground)" />
      ))}
      {plugs.map(({ id, pins, left, long }) => (
        <g key={id} fill="none" stroke={ink} strokeWidth={1}>
          <rect x={left} y={8} width={long} height={10} fill={light ? "#ffffff" : "#00000055"} />
          {Array.from({ length: pins }, (_, index) => (
            <circle key={index} cx={left + 6 + index * 6} cy={13} r={1.2} fill={ink} stroke="none" />
          ))}
        </g>
      ))}
      {sketch.look?.button !== "none" && sketch.look?.button !== undefined && (
        <circle cx={width - 18} cy={height * 0.66} r={5} fill="none" stroke={ink} strokeWidth={1.4} />
      )}
      {String(sketch.look?.chip ?? "none") !== "none" && (
        <g>
          <rect
            x={width * 0.34}
            y={height * 0.5}
            width={34}
            height={16}
            fill="#1d1b19"
            stroke={ink}
            strokeWidth={0.6}
          />
          <text
            x={width * 0.34 + 17}
            y={height * 0.5 + 11}
            textAnchor="middle"
            fontSize={7}
            fill="#ffffff"
            className="font-mono"
          >
            {String(sketch.look?.chip).split(" ").pop()}
          </text>
        </g>
      )}
    </svg>
  );
}

/** The plugs along the upper edge, from the left; one that has no room begins again at the left. */
function sideBySide(sketch: BoardDocument, width: number) {
  return (sketch.connectors ?? []).reduce<{ id: string; pins: number; left: number; long: number }[]>(
    (placed, plug) => {
      const long = Math.min(8 + 6 * plug.pins.length, width - 16);
      const before = placed[placed.length - 1];
      const next = before ? before.left + before.long + 6 : 10;
      return [...placed, { id: plug.id, pins: plug.pins.length, left: next + long > width - 6 ? 10 : next, long }];
    },
    [],
  );
}
