import { shown } from "./Band";

type Point = { at_c: number; value: number; low: number; high: number };
type Props = { title: string; points: Point[]; unit: string; reading?: { at: number; value: number } };

const [W, H, LEFT, BOTTOM] = [340, 190, 52, 26];
const log = (value: number) => Math.log(Math.max(1e-9, value));

/** A sensor's curve with its band, on a logarithmic scale, and the reading on it. */
export function SensorCurve({ title, points, unit, reading }: Props) {
  const first = points[0];
  const last = points[points.length - 1];
  if (!first || !last || first === last) return null;
  const values = points.flatMap((p) => [p.low, p.high]).concat(reading ? [reading.value] : []);
  const [low, high] = [log(Math.min(...values)), log(Math.max(...values))];
  const x = (t: number) => LEFT + ((t - first.at_c) / (last.at_c - first.at_c)) * (W - LEFT - 8);
  const y = (v: number) => 8 + (1 - (log(v) - low) / (high - low || 1)) * (H - BOTTOM - 8);
  const upper = points.map((p) => `${x(p.at_c)},${y(p.high)}`);
  const lower = [...points].reverse().map((p) => `${x(p.at_c)},${y(p.low)}`);
  const ticks = [low, (low + high) / 2, high].map(Math.exp);
  const label = reading
    ? `${title}: ${shown(reading.value)} ${unit} read at ${shown(reading.at)} °C`
    : `${title}: ${shown(first.value)} ${unit} at ${shown(first.at_c)} °C to ${shown(last.value)} ${unit} at ${shown(last.at_c)} °C`;
  return (
    <svg viewBox={`0 0 ${W} ${H}`} className="block h-auto w-full max-w-md" role="img" aria-label={label}>
      <polygon points={[...upper, ...lower].join(" ")} fill="var(--rule)" />
      <polyline
        points={points.map((p) => `${x(p.at_c)},${y(p.value)}`).join(" ")}
        fill="none"
        stroke="var(--text)"
        strokeWidth={1.6}
      />
      <path d={`M${LEFT} 8V${H - BOTTOM}H${W - 8}`} fill="none" stroke="var(--edge)" />
      {[first.at_c, (first.at_c + last.at_c) / 2, last.at_c].map((t, index) => (
        <text
          key={t}
          x={x(t)}
          y={H - 8}
          textAnchor={index === 2 ? "end" : index === 0 ? "start" : "middle"}
          fontSize={12}
          fill="var(--faint)"
        >
          {shown(t)} °C
        </text>
      ))}
      {ticks.map((v, index) => (
        <text key={v} x={LEFT - 4} y={y(v) + (index === 2 ? 10 : 4)} textAnchor="end" fontSize={12} fill="var(--faint)">
          {shown(Number(v.toPrecision(2)))}
        </text>
      ))}
      <text x={W - 12} y={18} textAnchor="end" fontSize={12} fill="var(--faint)">
        {unit}
      </text>
      {reading && (
        <>
          <path
            d={`M${x(reading.at)} ${y(reading.value)}V${H - BOTTOM}`}
            stroke="var(--text)"
            strokeDasharray="3 3"
            fill="none"
          />
          <path d={`M${x(reading.at)} ${y(reading.value) - 8}l6 8l-6 8l-6-8z`} fill="var(--text)" />
        </>
      )}
    </svg>
  );
}
