/**
 * The time, going on evenly where somebody sets the device's clock back while the page is open: counts and stretches are
 * reckoned from it. A clock set forward cannot be told from a device that slept, and is believed.
 */
import { loadForNow, saveForNow } from "./store";

const NOTICED_MS = 2000;
const LOOK_MS = 2000;
const KEY = "clock-shift";

let shift = loadForNow<number>(KEY, 0);
let last = { wall: Date.now(), even: performance.now() };
const listeners = new Set<() => void>();

function look() {
  const now = { wall: Date.now(), even: performance.now() };
  const jump = now.wall - last.wall - (now.even - last.even);
  last = now;
  const before = shift;
  if (jump < -NOTICED_MS) shift -= jump;
  else if (jump > NOTICED_MS && shift > 0) shift = Math.max(0, shift - jump);
  if (shift < NOTICED_MS) shift = 0;
  if (shift === before) return;
  saveForNow(KEY, shift);
  for (const listener of listeners) listener();
}

setInterval(look, LOOK_MS);

export function nowMs(): number {
  look();
  return Date.now() + shift;
}

export function nowIso(): string {
  return new Date(nowMs()).toISOString();
}

/** Whether the clock stands set back. */
export const setBack = {
  subscribe: (listener: () => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
  is: () => shift > 0,
};
