import { createContext, useContext, type ReactNode } from "react";

export type Side = "original" | "replacement";

/** A part number or position in the ink of its board: square corners for the original, round ones for the replacement. */
export function InkMark({ side, children }: { side: Side; children: ReactNode }) {
  const shape =
    side === "original"
      ? "rounded-none border-original text-original bg-original-wash"
      : "rounded-full border-replacement text-replacement bg-replacement-wash";
  return (
    <span className={`inline-block border-[1.5px] px-2 max-w-full font-mono text-[0.92em] ${shape}`}>{children}</span>
  );
}

/** What the two sides are called where they are not an original and its replacement. */
export const SideWords = createContext<Record<Side, string>>({ original: "Original", replacement: "Replacement" });

/** The name of a side in words, with its shape. */
export function SideName({ side, children }: { side: Side; children?: ReactNode }) {
  const words = useContext(SideWords);
  return (
    <span
      className={`inline-flex max-w-full flex-wrap items-center gap-x-2 ${side === "original" ? "text-original" : "text-replacement"}`}
    >
      <span
        aria-hidden="true"
        data-ink={side}
        className={`size-3 bg-current ${side === "original" ? "" : "rounded-full"}`}
      />
      {children ?? words[side]}
    </span>
  );
}

const WORDS: Record<string, string> = {
  identical: "in register",
  "within tolerance": "in register, within tolerance",
  different: "off register",
  open: "open",
  "not proved": "not proved",
  "no position": "no position",
};

/** A twin verdict in the product's words: calm where the two are in register, fringed where they are not. */
export function VerdictMark({ verdict }: { verdict: string }) {
  const calm = verdict === "identical" || verdict === "within tolerance";
  return (
    <span className="inline-flex items-center gap-2 font-semibold">
      <svg viewBox="0 0 26 16" className="h-4 w-6.5 shrink-0" aria-hidden="true">
        {calm ? (
          <rect x="5" y="2" width="14" height="12" fill="var(--both)" />
        ) : (
          <>
            <rect x="1" y="2" width="14" height="12" fill="var(--original)" />
            <rect x="10" y="2" width="14" height="12" rx="5" fill="var(--replacement)" />
            {verdict === "different" && <rect x="10" y="2" width="5" height="12" fill="var(--both)" />}
          </>
        )}
      </svg>
      {WORDS[verdict] ?? verdict}
    </span>
  );
}
