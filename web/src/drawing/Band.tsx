type Props = {
  value: number;
  uncertainty: number;
  low: number | null;
  high: number | null;
  unit: string;
};

const WIDTH = 320;

/** A reading with its uncertainty on the band that it should lie in. */
export function Band({ value, uncertainty, low, high, unit }: Props) {
  const ends = [
    value - uncertainty,
    value + uncertainty,
    ...(low === null ? [] : [low]),
    ...(high === null ? [] : [high]),
  ];
  const least = Math.min(...ends);
  const most = Math.max(...ends);
  const room = (most - least || Math.abs(most) || 1) * 0.15;
  const at = (x: number) => 8 + ((x - (least - room)) / (most - least + 2 * room)) * (WIDTH - 16);
  const from = low === null ? 0 : at(low);
  const to = high === null ? WIDTH : at(high);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 52`}
      className="block h-auto w-full max-w-md"
      role="img"
      aria-label={`${shown(value)} ${unit} read; expected ${bandWords(low, high, unit)}`}
    >
      <rect x={from} y={14} width={Math.max(2, to - from)} height={14} fill="var(--rule)" />
      {[low, high].map(
        (end, index) =>
          end !== null && (
            <g key={index}>
              <path d={`M${at(end)} 10V32`} stroke="var(--text)" strokeWidth={1.5} />
              <text x={at(end)} y={46} textAnchor="middle" fontSize={13} fill="var(--text)" className="font-mono">
                {shown(end)}
              </text>
            </g>
          ),
      )}
      <path
        d={`M${at(value - uncertainty)} 21H${at(value + uncertainty)}M${at(value - uncertainty)} 16v10M${at(value + uncertainty)} 16v10`}
        stroke="var(--text)"
        strokeWidth={2}
      />
      <path d={`M${at(value)} 12l6 9l-6 9l-6-9z`} fill="var(--text)" />
    </svg>
  );
}

export function bandWords(low: number | null, high: number | null, unit: string) {
  if (low !== null && high !== null) return `${shown(low)} to ${shown(high)} ${unit}`;
  return low !== null ? `at least ${shown(low)} ${unit}` : `at most ${shown(high ?? 0)} ${unit}`;
}

export function shown(value: number) {
  return value.toLocaleString("en-GB", { maximumSignificantDigits: 5 });
}
