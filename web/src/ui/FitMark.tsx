export type Fit = "fits" | "with work" | "to check" | "no";

/** A verdict of the fit by its shape: overprinted, half, hollow with a question, apart. The word stands beside it or in its label. */
export function FitMark({ verdict }: { verdict: string }) {
  return (
    <svg viewBox="0 0 24 20" className="h-5 w-6 shrink-0" aria-hidden="true">
      {verdict === "fits" && <rect x="5" y="3" width="14" height="14" fill="var(--both)" />}
      {verdict === "with work" && (
        <>
          <rect x="5" y="3" width="14" height="14" fill="none" stroke="var(--both)" strokeWidth="2" />
          <path d="M5 17V3L19 17Z" fill="var(--both)" />
        </>
      )}
      {verdict === "to check" && (
        <>
          <rect
            x="5"
            y="3"
            width="14"
            height="14"
            fill="none"
            stroke="var(--both)"
            strokeWidth="1.6"
            strokeDasharray="3 2"
          />
          <text x="12" y="14.5" textAnchor="middle" fontSize="12" fontWeight="700" fill="var(--both)">
            ?
          </text>
        </>
      )}
      {verdict === "no" && (
        <>
          <rect x="1.5" y="3" width="10" height="14" fill="var(--original)" />
          <rect x="13.5" y="3" width="9" height="14" rx="4" fill="var(--replacement)" />
        </>
      )}
    </svg>
  );
}
