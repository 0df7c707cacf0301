type Suspect = { id: string; title: string; before: number; weight: number; words: string };

/** How much weighs against each suspect: a bar, the mark of where it began, and a word. */
export function Suspicion({ suspects, own }: { suspects: Suspect[]; own: string }) {
  return (
    <ul className="flex flex-col gap-1.5">
      {suspects.map((each) => (
        <li key={each.id} className="grid grid-cols-[1fr_auto] items-center gap-x-3 sm:grid-cols-[15rem_1fr_10rem]">
          <span className={each.id === own ? "font-bold" : ""}>{each.title}</span>
          <span className="text-right text-sm sm:order-3 sm:text-left">{each.words}</span>
          <svg
            viewBox="0 0 100 8"
            preserveAspectRatio="none"
            aria-hidden="true"
            className="col-span-2 h-3 w-full sm:order-2 sm:col-span-1 sm:h-4"
          >
            <rect width={100} height={8} fill="var(--raised)" stroke="var(--rule)" strokeWidth={0.6} />
            <rect width={100 * each.weight} height={8} fill={each.id === own ? "var(--original)" : "var(--edge)"} />
            <path d={`M${100 * each.before} 0V8`} stroke="var(--text)" strokeWidth={0.7} />
          </svg>
        </li>
      ))}
    </ul>
  );
}
