import type { ReactNode } from "react";

const CORNERS = ["-left-2 -top-2", "-right-2 -top-2", "-left-2 -bottom-2", "-right-2 -bottom-2"];

/** What stands in this frame is no real job: a dotted edge around the whole screen, and the word in every corner. */
export function Frame({ children }: { children: ReactNode }) {
  return (
    <>
      <div aria-hidden="true" className="pointer-events-none fixed inset-0 z-10 border-8 border-dotted border-focus">
        {CORNERS.map((corner) => (
          <span
            key={corner}
            className={`absolute ${corner} flex h-20 w-4 items-center justify-center bg-focus text-[0.7rem] leading-none font-bold tracking-wide text-ground [writing-mode:vertical-rl]`}
          >
            practice
          </span>
        ))}
      </div>
      <div className="py-3">{children}</div>
    </>
  );
}
