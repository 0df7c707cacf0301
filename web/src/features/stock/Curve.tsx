import type { PlanFound } from "./api";
import { moneyWords } from "./words";

const [WIDTH, HEIGHT, LEFT, BOTTOM, TOP] = [560, 240, 54, 34, 12];

type Props = { points: PlanFound["curve"]; failures: number; cost: number; served: number };

/** Money against the share of failures put right at the first visit; this plan is the round mark. */
export function Curve({ points, failures, cost, served }: Props) {
  const most = Math.max(cost, ...points.map((each) => each.budget), 1);
  const x = (money: number) => LEFT + ((WIDTH - LEFT - 16) * money) / most;
  const y = (put: number) => TOP + (HEIGHT - TOP - BOTTOM) * (1 - (failures > 0 ? put / failures : 0));
  const line = (of: (each: Props["points"][number]) => number) =>
    [`M${x(0)} ${y(0)}`, ...points.map((each) => `L${x(each.budget)} ${y(of(each))}`)].join("");
  return (
    <figure className="overflow-x-auto">
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="w-full min-w-100"
        role="img"
        aria-label={toldWords(points, failures)}
      >
        {[0, 0.25, 0.5, 0.75, 1].map((share) => (
          <g key={share}>
            <path d={`M${LEFT} ${y(share * failures)}H${WIDTH - 16}`} stroke="var(--rule)" />
            <text x={LEFT - 6} y={y(share * failures) + 4} textAnchor="end" fontSize={12} fill="var(--faint)">
              {share * 100} %
            </text>
          </g>
        ))}
        <path d={line((each) => each.at_most)} fill="none" stroke="var(--faint)" strokeDasharray="3 4" />
        <path d={line((each) => each.served)} fill="none" stroke="var(--both)" strokeWidth={2} />
        {points.map((each) => (
          <g key={each.budget}>
            <rect x={x(each.budget) - 3} y={y(each.served) - 3} width={6} height={6} fill="var(--both)" />
            <text x={x(each.budget)} y={HEIGHT - 12} textAnchor="middle" fontSize={12} fill="var(--faint)">
              {moneyWords(each.budget)}
            </text>
          </g>
        ))}
        <circle cx={x(cost)} cy={y(served)} r={7} fill="none" stroke="var(--replacement)" strokeWidth={2.5} />
      </svg>
      <figcaption className="text-sm text-faint">
        Full line: the best plan found for each sum, without the vans' own bounds of value. Dotted: no plan is above it.
      </figcaption>
    </figure>
  );
}

function toldWords(points: Props["points"], failures: number) {
  return points
    .map((each) => `${moneyWords(each.budget)}: ${failures > 0 ? Math.round((100 * each.served) / failures) : 0} %`)
    .join(", ");
}
