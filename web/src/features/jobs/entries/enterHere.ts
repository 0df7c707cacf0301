import { Problem } from "@/api/client";
import { refuse, waiting } from "@/api/outbox";
import { enterAlong } from "@/with_you/along";
import { takenJob } from "@/with_you/takings";

/** Enter something in the job as it is along; whether it is. What cannot be taken is noted with the entry, as the depot would. */
export async function enterHere(maker: string, sheet: string, id: string): Promise<boolean> {
  const taken = await takenJob(maker, sheet);
  if (!taken) return false;
  const said = await enterAlong(taken, id);
  if (!said) return true;
  const told = JSON.parse(said[1]) as Partial<Problem>;
  const problem = new Problem(said[0], told.title ?? "Not possible", told.detail ?? "", told.faults ?? []);
  const each = (await waiting(maker, sheet)).find(({ entry }) => entry.id === id);
  if (each && !problem.isForLater) await refuse(each, problem);
  return true;
}
