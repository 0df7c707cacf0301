/** What is typed and not saved yet: kept for this page on this device, so that a reload loses none of it. */

const PREFIX = "typed ";

export function typedAt(place: string): string | null {
  try {
    return sessionStorage.getItem(keyOf(place));
  } catch {
    return null;
  }
}

export function keepTyped(place: string, text: string) {
  try {
    sessionStorage.setItem(keyOf(place), text);
  } catch {
    // no room on the device: the page still has it
  }
}

export function forgetTyped(place: string) {
  sessionStorage.removeItem(keyOf(place));
}

/** Forget all that was typed and not saved: another person works here now. */
export function forgetAllTyped() {
  for (const key of Object.keys(sessionStorage)) if (key.startsWith(PREFIX)) sessionStorage.removeItem(key);
}

const keyOf = (place: string) => `${PREFIX}${location.pathname} ${place}`;
