/** What can be taken back in an outing, kept on this device, the last of it last. */
import { load, save } from "../lib/store";
import type { Write } from "./outbox";

export interface Undo {
  what: string;
  writes: Write[];
}

const MOST = 20;
const key = (outing: string) => `undo:${outing}`;

export function loadUndos(outing: string): Undo[] {
  return load(key(outing), []);
}

export function saveUndos(outing: string, undos: Undo[]): Undo[] {
  const kept = undos.slice(-MOST);
  save(key(outing), kept);
  return kept;
}

export function rememberUndo(outing: string, what: string, writes: Write[]) {
  saveUndos(outing, [...loadUndos(outing), { what, writes }]);
}
