import { useSession } from "@/api/session";
import { Loading, ProblemNotice } from "@/ui/notices";
import { Part } from "@/ui/Part";
import { useAway } from "@/with_you/useAway";
import { Link } from "@tanstack/react-router";
import { useEffect, useState } from "react";
import { Along } from "./Along";
import { newSeed, sendWaiting, usePractice } from "./api";
import { Attempts } from "./Attempts";
import { Frame } from "./Frame";
import { Groups } from "./Groups";
import { seeds } from "./kept";
import type { Home, Level } from "./task";
import { knownWords, LEVEL_WORDS, skillWords } from "./words";

/** What to practise next, and how one stands. */
export function PracticePage() {
  const home = usePractice();
  const away = useAway();
  const person = useSession().data?.username;
  const [drawn, setDrawn] = useState(() => seeds(newSeed));
  useEffect(() => {
    if (person && !away) void sendWaiting(person).then(() => home.refetch());
    // once when the page is opened, and again when there is a connection
    // eslint-disable-next-line react-hooks/exhaustive-deps -- refetch is a new function with every answer
  }, [person, away]);
  const next = home.data?.next;
  return (
    <Frame>
      <main className="mx-auto flex max-w-3xl flex-col gap-5 px-6 py-6">
        <h1>Practice</h1>
        <p>
          On boards that cannot be burnt. Nothing here touches a real job, its record, the counts or a van. The machine
          answers as it would: nobody says that something is wrong but the machine.
        </p>
        <ProblemNotice problem={home.error} />
        {home.isPending && <Loading what="Looking how you stand" />}
        {next && (
          <div className="flex flex-col gap-2 border-y-2 border-text py-4">
            <p>
              <strong>Next: {LEVEL_WORDS[next].title.toLowerCase()}</strong>, {home.data?.because}. About{" "}
              {LEVEL_WORDS[next].minutes} minutes.
            </p>
            <ToTask level={next} seed={drawn[next]} main>
              Begin
            </ToTask>
          </div>
        )}
        <ul className="border-t border-rule">
          {home.data?.levels.map((each) => (
            <LevelLine key={each.level} {...each} seed={drawn[each.level]} />
          ))}
        </ul>
        <Along seeds={drawn} onTaken={() => setDrawn(seeds(newSeed))} />
        <Groups />
        <Part title="What you did" status="newest first">
          <Attempts />
        </Part>
      </main>
    </Frame>
  );
}

function LevelLine({ level, skills, done, seed }: Home["levels"][number] & { seed: number }) {
  const { title, minutes, what } = LEVEL_WORDS[level];
  return (
    <li className="flex flex-wrap items-center gap-3 border-b border-rule py-3">
      <div className="min-w-0 grow basis-60">
        <strong>{title}</strong>{" "}
        <span className="text-faint">
          about {minutes} min, done so far: {done}
        </span>
        <span className="block text-sm">{what}</span>
        <span className="block text-sm text-faint">
          {skills.map((each) => `${skillWords(each.skill)}: ${knownWords(each.known)}`).join("; ")}
        </span>
      </div>
      <ToTask level={level} seed={seed}>
        Do one
      </ToTask>
    </li>
  );
}

const LOOKS = {
  main: "border-both bg-both font-semibold text-ground",
  plain: "border-edge bg-raised",
};

function ToTask({ level, seed, main, children }: { level: Level; seed: number; main?: boolean; children: string }) {
  return (
    <Link
      to="/practice/$level"
      params={{ level }}
      search={{ seed, original: "", replacement: "" }}
      aria-label={main ? children : `${children}: ${LEVEL_WORDS[level].title}`}
      className={`flex min-h-12 items-center self-start rounded-sm border px-4 no-underline ${LOOKS[main ? "main" : "plain"]}`}
    >
      {children}
    </Link>
  );
}
