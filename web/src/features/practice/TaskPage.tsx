import { newId } from "@/api/ids";
import { useSession } from "@/api/session";
import { Button } from "@/ui/Button";
import { Loading, ProblemNotice } from "@/ui/notices";
import { useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate, useParams, useSearch } from "@tanstack/react-router";
import { useEffect, useState } from "react";
import { forgetTask, keepEnded, newSeed, usePlayed, useTask, type Wanted } from "./api";
import { FindView } from "./FindView";
import { Frame } from "./Frame";
import { keepUnderWay, nextSeed, underWay, type UnderWay } from "./kept";
import { KeysView } from "./KeysView";
import { LaidView } from "./LaidView";
import { MeterView } from "./MeterView";
import { ReadView } from "./ReadView";
import { SafeView } from "./SafeView";
import { SetView } from "./SetView";
import {
  acted,
  type Action,
  type Finding,
  type Keying,
  type Level,
  type Metering,
  type Reading,
  type Safety,
  type Setting,
  type Task,
  type Whole,
  type Wiring,
} from "./task";
import { WholeView } from "./WholeView";
import { WiresView } from "./WiresView";
import { LEVEL_WORDS, LEVELS } from "./words";

/** One task of practice, from its beginning to the two sheets laid on each other. */
export function TaskPage() {
  const { level: named } = useParams({ from: "/practice/$level" });
  const search = useSearch({ from: "/practice/$level" });
  const level = LEVELS.find((each) => each === named) ?? "read";
  const wanted: Wanted = { level, ...search };
  const task = useTask(wanted);
  return (
    <Frame>
      <main className="mx-auto flex max-w-3xl flex-col gap-5 px-6 py-6">
        <p className="text-faint">
          <Link to="/practice">Practice</Link>
        </p>
        <h1>{LEVEL_WORDS[level].title}</h1>
        <ProblemNotice problem={task.error} />
        {task.isPending && <Loading what="Setting up the machine" />}
        {task.data && <Playing key={JSON.stringify(wanted)} wanted={wanted} task={task.data} />}
      </main>
    </Frame>
  );
}

function Playing({ wanted, task }: { wanted: Wanted; task: Task }) {
  const name = JSON.stringify(task.task);
  const [state, setState] = useState<UnderWay>(() => underWay(name) ?? { actions: [], begun: Date.now(), id: newId() });
  const [kept, setKept] = useState("");
  const played = usePlayed(task, state.actions);
  const person = useSession().data?.username ?? "";
  const queries = useQueryClient();
  const act = (action: Action) => {
    const next = { ...state, actions: acted(state.actions, action) };
    setState(next);
    keepUnderWay(name, next);
  };
  const isEnded = !played.isPlaceholderData && !!played.data?.ended;
  // what was ended on a device that then fell asleep is sent when it is opened again; sent twice, it is kept once
  useEffect(() => {
    if (!isEnded || !person) return;
    const seconds = Math.min(86_400, (Date.now() - state.begun) / 1000);
    const ended = { id: state.id, task: task.task, actions: state.actions, seconds, made: new Date().toISOString() };
    void keepEnded(person, ended).then((sent) => {
      setKept(sent ? "Kept with what you did." : "It waits on this device until there is a connection.");
      return queries.invalidateQueries({ queryKey: ["practice", "home"] });
    });
  }, [isEnded, person, queries, state, task.task]);
  const again = () => {
    keepUnderWay(name, null);
    setKept("");
    setState({ actions: [], begun: Date.now(), id: newId() });
  };
  /** What cannot be done is taken back, and said. */
  const back = () => {
    const next = { ...state, actions: state.actions.slice(0, -1) };
    setState(next);
    keepUnderWay(name, next);
  };
  if (played.error)
    return (
      <>
        <ProblemNotice problem={played.error} />
        <div className="flex gap-3">
          <Button onClick={() => void played.refetch()}>Try again</Button>
          {state.actions.length > 0 && <Button onClick={back}>Take the last thing back</Button>}
        </div>
      </>
    );
  if (!played.data) return <Loading what="The machine starts" />;
  const { shown, ended } = played.data;
  if (ended && isEnded)
    return (
      <LaidView
        laid={ended}
        task={task}
        kept={kept}
        onAgain={again}
        onNext={<NextTask wanted={wanted} onLeave={() => keepUnderWay(name, null)} />}
      />
    );
  return (
    <>
      <p>
        {LEVEL_WORDS[wanted.level].what} <span className="text-faint">{task.kind}.</span>
      </p>
      <Room level={wanted.level} shown={shown} task={task} onAct={act} busy={played.isPlaceholderData} />
    </>
  );
}

type RoomProps = { level: Level; shown: unknown; task: Task; onAct: (action: Action) => void; busy: boolean };

function Room({ level, shown, ...props }: RoomProps) {
  switch (level) {
    case "read":
      return <ReadView shown={shown as Reading} {...props} />;
    case "wires":
      return <WiresView shown={shown as Wiring} {...props} />;
    case "keys":
      return <KeysView shown={shown as Keying} {...props} />;
    case "meter":
      return <MeterView shown={shown as Metering} {...props} />;
    case "find":
      return <FindView shown={shown as Finding} {...props} />;
    case "whole":
      return <WholeView shown={shown as Whole} {...props} />;
    case "safe":
      return <SafeView shown={shown as Safety} {...props} />;
    default:
      return <SetView shown={shown as Setting} {...props} />;
  }
}

function NextTask({ wanted, onLeave }: { wanted: Wanted; onLeave: () => void }) {
  const navigate = useNavigate();
  return (
    <Button
      kind="main"
      onClick={() => {
        onLeave();
        void forgetTask(wanted);
        const seed = nextSeed(wanted.level, newSeed);
        void navigate({ to: "/practice/$level", params: { level: wanted.level }, search: { ...wanted, seed } });
      }}
    >
      Another one
    </Button>
  );
}
