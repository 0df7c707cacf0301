import type { Schemas } from "@/api/client";
import type { Shown } from "./shown";

type Round = Schemas["RoundShown"];

export const INKS = { original: "var(--original)", replacement: "var(--replacement)", both: "var(--both)" };

type BandProps = {
  output: { id: string; title: string };
  y: number;
  original: Shown[];
  replacement: Shown[];
  measured?: Shown[];
  measuredUntil: number;
  rounds: Round[];
  x: (at: number) => number;
  until: number;
};

/** When an output is on: a bar in the ink of each board, and where both are on the two printed black. */
export function OutputBand({
  output,
  y,
  original,
  replacement,
  measured = [],
  measuredUntil,
  rounds,
  x,
  until,
}: BandProps) {
  const known = (side: Round["side"]) => rounds.find((each) => each.side === side)?.at ?? until;
  const a = spans(original, output.id, known("original"));
  const b = spans(replacement, output.id, known("replacement"));
  const both = a.flatMap(([s, e]) =>
    b.map(([t, f]) => [Math.max(s, t), Math.min(e, f)] as const).filter(([s2, e2]) => e2 > s2),
  );
  const bar = (s: number, e: number) => ({ x: x(s), width: Math.max(1.5, x(e) - x(s)) });
  return (
    <g>
      <text x={4} y={y + 16} fontSize={12.5} fill="var(--text)">
        {output.title}
      </text>
      <path d={`M${x(0)} ${y + 22}H${x(until)}`} stroke="var(--rule)" strokeWidth={0.8} />
      {a.map(([s, e]) => (
        <rect key={s} {...bar(s, e)} y={y + 4} height={9} fill="var(--original)" />
      ))}
      {b.map(([s, e]) => (
        <rect key={s} {...bar(s, e)} y={y + 12} height={9} rx={4} fill="var(--replacement)" />
      ))}
      {both.map(([s, e]) => (
        <rect key={s} {...bar(s, e)} y={y + 4} height={17} fill="var(--both)" />
      ))}
      {rounds.map((each) => (
        <path
          key={each.side}
          d={`M${x(each.at)} ${y + (each.side === "original" ? 8.5 : 16.5)}H${x(until)}`}
          stroke={INKS[each.side]}
          strokeWidth={9}
          strokeDasharray="1.5 3.5"
        />
      ))}
      {spans(measured, output.id, measuredUntil).map(([s, e]) => (
        <g key={s}>
          <path d={`M${x(s)} ${y + 12.5}H${x(e)}`} stroke="var(--ground)" strokeWidth={5} />
          <path d={`M${x(s)} ${y + 12.5}H${x(e)}`} stroke="var(--text)" strokeWidth={3} strokeDasharray="2 4" />
          <path d={`M${x(s)} ${y + 2}V${y + 23}M${x(e)} ${y + 2}V${y + 23}`} stroke="var(--text)" strokeWidth={1.4} />
        </g>
      ))}
    </g>
  );
}

/** When an output is on, from the entries of its changes. */
export function spans(shown: Shown[], output: string, until: number): [number, number][] {
  const found: [number, number][] = [];
  let since: number | null = null;
  for (const entry of shown) {
    const on = entry.on.includes(output);
    if (on && since === null) since = entry.at;
    if (!on && since !== null) {
      found.push([since, entry.at]);
      since = null;
    }
  }
  if (since !== null) found.push([since, until]);
  return found;
}
