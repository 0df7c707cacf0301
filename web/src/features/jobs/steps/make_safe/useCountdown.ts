import { useEffect, useState } from "react";

/** Seconds that are left of a wait which the server told at a moment of this page; it goes on by itself. */
export function useCountdown(leftS: number, readAt: number): number {
  const [now, setNow] = useState(() => performance.now());
  const left = Math.max(leftS - (now - readAt) / 1000, 0);
  const running = left > 0;
  useEffect(() => {
    if (!running) return;
    const timer = window.setInterval(() => setNow(performance.now()), 250);
    return () => window.clearInterval(timer);
  }, [running, readAt]);
  return left;
}

export function minutes(seconds: number): string {
  const whole = Math.ceil(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}
