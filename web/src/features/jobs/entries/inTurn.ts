import type { Change } from "./targets";
import type { Put } from "./useEntries";

/** Several entries for one tap, one after another, until one is refused; whether all of them were not. */
export async function inTurn(put: Put, changes: Change[]): Promise<boolean> {
  for (const change of changes) if (!(await put(change))) return false;
  return true;
}
