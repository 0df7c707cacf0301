import { Problem } from "@/api/client";
import { drop, refuse, waiting, type Waiting } from "@/api/outbox";
import { enterAlong } from "@/with_you/along";
import { withdrawPicture } from "@/with_you/pictures";
import { takenJob } from "@/with_you/takings";

/** Answers that say that an entry is wrong, whoever looks at it. */
const WRONG = [400, 409, 422];

/** Have an entry wait no longer, nor the picture of which it speaks. */
export async function withdraw(each: Waiting): Promise<void> {
  await withdrawPicture(each.maker, each.job, each.entry.target);
  await drop(each);
}

/** Enter something in the job as it is along; whether it is. What cannot be taken is noted with the entry, as the depot would. */
export async function enterHere(maker: string, sheet: string, id: string): Promise<boolean> {
  const taken = await takenJob(maker, sheet);
  if (!taken) return false;
  const said = await enterAlong(taken, id);
  if (!said || !WRONG.includes(said[0])) return true;
  const each = (await waiting(maker, sheet)).find(({ entry }) => entry.id === id);
  const told = JSON.parse(said[1]) as Partial<Problem>;
  if (each)
    await refuse(each, new Problem(said[0], told.title ?? "Not possible", told.detail ?? "", told.faults ?? []));
  return true;
}
