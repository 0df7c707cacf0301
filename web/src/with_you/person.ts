/** Who works on this device, also where nobody can be asked. */
import { notePersonHere, personHere } from "@/api/kept";
import { keepPerson, personKept } from "./takings";

/**
 * Note who works on this device. A browser writes its local storage down some time later, and may be killed before: the
 * database has it as well.
 */
export async function setPersonHere(person: string | null): Promise<void> {
  notePersonHere(person);
  await keepPerson(person).catch(() => undefined);
}

/** Who works here, also in a browser that was killed. */
export async function whoIsHere(): Promise<string | null> {
  const here = personHere();
  if (here) return here;
  const person = await personKept();
  if (person) notePersonHere(person);
  return person;
}
