/** Whether the server answers: as the device knows it, and as the last question found it. */
import { useSyncExternalStore } from "react";

type Listener = () => void;
let answers = true;
const listeners = new Set<Listener>();

function tell() {
  for (const listener of listeners) listener();
}

/** Noted by the client with every question. */
export function noteReach(reached: boolean) {
  if (reached === answers) return;
  answers = reached;
  tell();
}

/** Told when the server answers again: a browser does not always know that it is back. */
export function whenReached(listener: Listener) {
  listeners.add(() => answers && listener());
}

function subscribe(listener: Listener) {
  listeners.add(listener);
  window.addEventListener("online", listener);
  window.addEventListener("offline", listener);
  return () => {
    listeners.delete(listener);
    window.removeEventListener("online", listener);
    window.removeEventListener("offline", listener);
  };
}

export function useReach(): boolean {
  return useSyncExternalStore(subscribe, () => navigator.onLine && answers);
}
