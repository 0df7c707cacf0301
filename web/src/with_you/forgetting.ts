import { forgetAll } from "@/api/database";
import { forgetKept } from "@/api/kept";
import { stopCore } from "./core";
import { setPersonHere } from "./person";

/** Leave nothing of somebody's on this device; entries that wait and what was typed stay for their maker, unless they are to be forgotten too. */
export async function forgetPerson(person: string, entriesToo: boolean): Promise<void> {
  await setPersonHere(null);
  stopCore();
  if (entriesToo) forgetKept(person);
  await forgetAll(person, entriesToo).catch(() => undefined);
}
