/** A task of practice, played in this browser where the core is loaded; else by the depot's server. */
import { answer, api, Problem, type Schemas } from "@/api/client";
import { isAway } from "@/api/reach";
import { core, inTurn, keepCore, loadCore, onCoreGone } from "./core";

type Task = Schemas["TaskShown"];
type Played = Schemas["PracticeShown"];

/** The task that the core has; none while it is being loaded. */
let ready = "";
onCoreGone(() => (ready = ""));

const nameOf = (task: Task["task"]) => JSON.stringify(task);

/** Have the core on this device, and the task in it. Until it is, and where it cannot be had, the depot's server plays it. */
export async function bringTask(task: Task): Promise<void> {
  const name = nameOf(task.task);
  if (ready === name) return;
  await keepCore();
  loadCore();
  await inTurn(() => core.putInTask(name, JSON.stringify(task)));
  ready = name;
}

/** A task after some actions. */
export async function playTask(task: Task, actions: Record<string, unknown>[]): Promise<Played> {
  const given = { task: task.task, actions };
  const name = nameOf(task.task);
  // without a connection the core is waited for; with one the server is quicker than loading it
  if (ready !== name && isAway()) await bringTask(task);
  if (ready !== name) return answer(api.POST("/api/practice/play", { body: given }));
  const [status, body] = await inTurn(() => core.playTask(name, JSON.stringify(given)));
  const told = JSON.parse(body) as Problem & Played;
  if (status === 200) return told;
  throw new Problem(status, told.title, told.detail, told.faults);
}
