import { useSession } from "@/api/session";
import { Button } from "@/ui/Button";
import { Empty, Loading, ProblemNotice } from "@/ui/notices";
import { clock } from "@/ui/times";
import { Link, useParams } from "@tanstack/react-router";
import { useRef } from "react";
import { useDrawTasks, useGroup, useLoadTasks } from "./api";
import { Frame } from "./Frame";
import type { Group } from "./task";
import { knownWords, LEVEL_WORDS, LEVELS, skillWords } from "./words";

/** A group: its tasks, and how its members stand. */
export function GroupPage() {
  const { id } = useParams({ from: "/practice/group/$id" });
  const group = useGroup(id);
  const trains = useSession().data?.keeps_catalogue === true;
  return (
    <Frame>
      <main className="mx-auto flex max-w-4xl flex-col gap-5 px-6 py-6">
        <p className="text-faint">
          <Link to="/practice">Practice</Link>
        </p>
        <ProblemNotice problem={group.error} />
        {group.isPending && <Loading what="Reading the group" />}
        {group.data && (
          <>
            <h1>{group.data.name}</h1>
            <TaskList group={group.data} />
            {trains && <SetTasks id={id} />}
            <h2>How they stand</h2>
            <Standing group={group.data} />
          </>
        )}
      </main>
    </Frame>
  );
}

function TaskList({ group }: { group: Group }) {
  if (group.set.length === 0) return <Empty>No tasks are set yet.</Empty>;
  return (
    <ol className="border-t border-rule" aria-label="Tasks">
      {group.set.map((each, place) => (
        <li key={place} className="border-b border-rule">
          <Link
            to="/practice/$level"
            params={{ level: each.level }}
            search={{ seed: each.seed, original: each.original, replacement: each.replacement }}
            className="block min-h-12 py-3 no-underline hover:bg-raised"
          >
            {place + 1}. <strong>{LEVEL_WORDS[each.level].title}</strong>{" "}
            <span className="font-mono">
              {each.original}
              {each.replacement !== each.original && ` → ${each.replacement}`}
            </span>
          </Link>
        </li>
      ))}
    </ol>
  );
}

function SetTasks({ id }: { id: string }) {
  const draw = useDrawTasks(id);
  const load = useLoadTasks(id);
  const field = useRef<HTMLInputElement>(null);
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap gap-3">
        <Button disabled={draw.isPending} onClick={() => draw.mutate(LEVELS)}>
          {draw.isPending ? "Drawing them …" : "Draw one of each level"}
        </Button>
        <Button disabled={load.isPending} onClick={() => field.current?.click()}>
          Tasks from a file
        </Button>
        <a href={`/api/practice/groups/${id}/tasks`} className="min-h-12 py-3">
          Take the tasks away
        </a>
      </div>
      <input
        ref={field}
        type="file"
        accept=".json,application/json"
        aria-label="A file of tasks"
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) load.mutate(file);
          event.target.value = "";
        }}
      />
      <ProblemNotice problem={draw.error ?? load.error} />
    </div>
  );
}

/** Members against skills, in words, and how many of the tasks they have ended. */
function Standing({ group }: { group: Group }) {
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="How they stand">
      <table className="w-full text-left">
        <thead>
          <tr className="text-sm text-faint">
            <th className="py-1 pr-3 font-normal">who</th>
            <th className="py-1 pr-3 font-normal">tasks</th>
            {group.skills.map((each) => (
              <th key={each} className="py-1 pr-3 align-bottom font-normal">
                {skillWords(each)}
              </th>
            ))}
            <th className="py-1 font-normal">last</th>
          </tr>
        </thead>
        <tbody>
          {group.learners.map((each) => (
            <tr key={each.username} className="border-t border-rule">
              <th scope="row" className="py-2 pr-3 font-semibold">
                {each.name}
              </th>
              <td className="py-2 pr-3">
                {each.done.filter((done) => done === true).length} of {each.done.length} right
                {each.due > 0 && `, ${each.due} due`}
              </td>
              {group.skills.map((skill) => (
                <td
                  key={skill}
                  className={`py-2 pr-3 ${(each.skills[skill] ?? 0) >= 0.95 ? "font-semibold" : "text-faint"}`}
                >
                  {skill in each.skills ? knownWords(each.skills[skill] ?? 0) : "–"}
                </td>
              ))}
              <td className="py-2 text-sm text-faint">{each.last_at ? clock(each.last_at) : "never"}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
