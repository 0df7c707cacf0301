/** The depot's clock: that of the device is doubted, and how far it is off is known from the last answer of the server. */
import { useEffect, useState } from "react";

const KEY = "worthy-twin clock";
/** The time in an answer is cut to the second (RFC 9110, 5.6.7). */
const CUT_MS = 1000;

/**
 * Note how far the device's clock is from the server's, told in an answer to what was asked at a moment of the device's clock.
 *
 * The answer was made between then and now, so that the difference is known to within that time (Cristian 1989); a clock that may be
 * right counts as right. An answer that a cache may keep says nothing: it may be a day old.
 */
export function noteClock(response: Response, askedAt: number) {
  const told = Date.parse(response.headers.get("Date") ?? "");
  if (Number.isNaN(told) || !/no-store/.test(response.headers.get("Cache-Control") ?? "")) return;
  const least = askedAt - told - CUT_MS;
  const most = Date.now() - told;
  localStorage.setItem(KEY, String(least <= 0 && most >= 0 ? 0 : Math.round((least + most) / 2)));
}

/** By how many milliseconds the device's clock is ahead of the depot's, as far as it is known. */
export const clockOffset = () => Number(localStorage.getItem(KEY) ?? 0);

/** Now by the depot's clock, in milliseconds since 1970. */
export const depotMs = () => Date.now() - clockOffset();

/** Now, by the depot's clock. */
export const depotNow = () => new Date(depotMs()).toISOString();

/** Now by the depot's clock, in milliseconds since 1970, told anew each second. */
export function useDepotClock(): number {
  const [now, setNow] = useState(depotMs);
  useEffect(() => {
    const timer = window.setInterval(() => setNow(depotMs()), 1000);
    return () => window.clearInterval(timer);
  }, []);
  return now;
}
