/** The depot's clock: that of the device is doubted, and how far it is off is known from the last answer of the server. */
const KEY = "worthy-twin clock";

/** Note how far the device's clock is from the server's, told in an answer (to the second). */
export function noteClock(response: Response) {
  const date = response.headers.get("Date");
  if (!date) return;
  const offset = Date.now() - Date.parse(date);
  // an answer is some time on its way: what is off by less than that is not off
  localStorage.setItem(KEY, String(Math.abs(offset) < 3000 ? 0 : Math.round(offset)));
}

/** By how many milliseconds the device's clock is ahead of the depot's, as far as it is known. */
export const clockOffset = () => Number(localStorage.getItem(KEY) ?? 0);

/** Now, by the depot's clock. */
export const depotNow = () => new Date(Date.now() - clockOffset()).toISOString();
