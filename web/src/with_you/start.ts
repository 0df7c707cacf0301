/** Makes the application one that is on this device: it opens without a connection, and keeps itself new. */
import { useEffect, useState } from "react";
import { answerHere } from "./elsewhere";

declare const VERSION: string;
/** Which version of the application runs. */
export const version = VERSION;

let registration: Promise<ServiceWorkerRegistration | null> = Promise.resolve(null);

export function startOnDevice() {
  answerHere();
  if (!("serviceWorker" in navigator)) return;
  registration = navigator.serviceWorker.register("/static/device.js", { scope: "/" }).catch(() => null);
}

/** Whether a newer version is on this device; it is opened when whoever works here says so, or with the next opening. */
export function useNewer() {
  const [newer, setNewer] = useState<ServiceWorker | null>(null);
  useEffect(() => {
    let gone = false;
    void registration.then((found) => {
      if (!found || gone) return;
      const look = () => setNewer(found.waiting && navigator.serviceWorker.controller ? found.waiting : null);
      look();
      found.addEventListener("updatefound", () => found.installing?.addEventListener("statechange", look));
    });
    return () => {
      gone = true;
    };
  }, []);
  const open = () => {
    navigator.serviceWorker.addEventListener("controllerchange", () => location.reload(), { once: true });
    newer?.postMessage("take over");
  };
  return { newer: newer !== null, open };
}
