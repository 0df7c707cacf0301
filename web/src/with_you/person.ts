/** Who works on this device, also where nobody can be asked. */
import { keepPerson, personKept } from "./takings";

const WHO = "worthy-twin person";

/** Who works here, as far as it is known at once. */
export const personHere = () => localStorage.getItem(WHO);

/**
 * Note who works on this device. A browser writes its local storage down some time later, and may be killed before: the
 * database has it as well.
 */
export async function setPersonHere(person: string | null): Promise<void> {
  if (person === null) localStorage.removeItem(WHO);
  else localStorage.setItem(WHO, person);
  await keepPerson(person).catch(() => undefined);
}

/** Who works here, also in a browser that was killed. */
export async function whoIsHere(): Promise<string | null> {
  const here = personHere();
  if (here) return here;
  const person = await personKept();
  if (person) localStorage.setItem(WHO, person);
  return person;
}
