import { forgetAll } from "@/api/database";
import { forgetAlong } from "./along";
import { stopCore } from "./core";
import { setPersonHere } from "./person";

/** Which job was looked at last, as `early.js` notes it. */
const LAST_JOB = "worthy-twin last job";

/** Leave nothing of somebody's on this device; entries that wait stay for their maker, unless they are to be forgotten too. */
export async function forgetPerson(person: string, entriesToo: boolean): Promise<void> {
  await setPersonHere(null);
  localStorage.removeItem(LAST_JOB);
  stopCore();
  forgetAlong();
  await forgetAll(person, entriesToo).catch(() => undefined);
}
