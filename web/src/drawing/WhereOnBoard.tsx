import type { BoardDocument, Side } from "./types";

type Props = { document: BoardDocument; side: Side; place: string | null; what: string };

/** A board drawn small with one pin on it: which plug, and where along it. */
export function WhereOnBoard({ document, side, place, what }: Props) {
  const [w, h] = document.size_mm ?? [160, 110];
  const [plug = "", pin = ""] = place ? split(place) : [];
  const pins = document.connectors?.find((each) => each.id === plug)?.pins ?? [];
  const at = pins.findIndex((each) => String(each.pin) === pin);
  const ink = `var(--${side})`;
  return (
    <svg
      viewBox={`-4 -4 ${w + 8} ${h + 8}`}
      className="block h-auto w-full max-w-64"
      role="img"
      aria-label={place ? `${what}: ${place}` : `${what}: no place`}
    >
      <rect width={w} height={h} rx={side === "original" ? 0 : 5} fill="var(--raised)" stroke={ink} strokeWidth={1.8} />
      {document.layout
        ?.filter((each) => document.connectors?.some((one) => one.id === each.ref))
        .map((each) => {
          const [x, y] = each.at;
          const [pw, ph] = each.size ?? [12, 8];
          const here = each.ref === plug;
          return (
            <g key={each.ref} transform={`translate(${x} ${h - y - ph})`}>
              <rect
                width={pw}
                height={ph}
                fill={here ? `var(--${side}-wash)` : "none"}
                stroke={here ? ink : "var(--edge)"}
                strokeWidth={here ? 1.6 : 0.8}
              />
              <text
                x={pw / 2}
                y={ph + (here ? 11 : 8)}
                textAnchor="middle"
                fontSize={here ? 11 : 8}
                fontWeight={here ? 700 : 400}
                fill={here ? ink : "var(--faint)"}
              >
                {each.ref}
              </text>
              {here && at >= 0 && (
                <circle cx={((at + 0.5) / Math.max(pins.length, 1)) * pw} cy={ph / 2} r={3.4} fill={ink} />
              )}
            </g>
          );
        })}
    </svg>
  );
}

function split(place: string): [string, string] {
  const dot = place.lastIndexOf(".");
  return dot < 0 ? [place, ""] : [place.slice(0, dot), place.slice(dot + 1)];
}
