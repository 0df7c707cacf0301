type Suspect = { id: string; title: string; before: number; weight: number; words: string };
type Props = {
  suspects: Suspect[];
  own: string;
  /** What weighed against each before the last answer, where that is known. */
  moved?: Record<string, number>;
};

/** How much weighs against each suspect: a bar, the mark of where it began, a word, and what the last answer did. */
export function Suspicion({ suspects, own, moved = {} }: Props) {
  return (
    <ul className="flex flex-col gap-1.5">
      {suspects.map((each) => (
        <li key={each.id} className="grid grid-cols-[1fr_auto] items-center gap-x-3">
          <span className={each.id === own ? "font-bold" : ""}>{each.title}</span>
          <span className="text-right text-sm">
            {each.words}
            {step(each.weight, moved[each.id])}
          </span>
          <svg viewBox="0 0 100 8" preserveAspectRatio="none" aria-hidden="true" className="col-span-2 h-3 w-full">
            <rect width={100} height={8} fill="var(--raised)" stroke="var(--rule)" strokeWidth={0.6} />
            <rect width={100 * each.weight} height={8} fill={each.id === own ? "var(--original)" : "var(--edge)"} />
            <path d={`M${100 * each.before} 0V8`} stroke="var(--text)" strokeWidth={0.7} />
          </svg>
        </li>
      ))}
    </ul>
  );
}

const LEAST_STEP = 0.01;

/** What the last answer did, in hundredths: up or down. */
function step(now: number, before: number | undefined) {
  if (before === undefined || Math.abs(now - before) < LEAST_STEP) return null;
  const hundredths = Math.round(Math.abs(now - before) * 100);
  return (
    <strong>
      {" "}
      {now > before ? "↑" : "↓"} <span className="sr-only">{now > before ? "up by" : "down by"} </span>
      {hundredths}
    </strong>
  );
}
