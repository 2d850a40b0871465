/** What many parts of a page look at, each at its own piece: a part is drawn anew when its piece has changed, and no other. */
import { useRef, useSyncExternalStore } from "react";

export interface Shelf<T> {
  get: () => T;
  /** Laid down while the page is being drawn: who is drawn in the same go, for whatever reason, sees it already. */
  lay: (value: T) => void;
  /** Once that is drawn: all others look. */
  tell: () => void;
  subscribe: (told: () => void) => () => void;
}

export function shelf<T>(first: T): Shelf<T> {
  let now = first;
  const all = new Set<() => void>();
  return {
    get: () => now,
    lay: (value) => {
      now = value;
    },
    tell: () => {
      for (const told of all) told();
    },
    subscribe: (told) => {
      all.add(told);
      return () => all.delete(told);
    },
  };
}

function alike<P extends object>(a: P, b: P): boolean {
  return (Object.keys(b) as (keyof P)[]).every((name) => Object.is(a[name], b[name]));
}

/** A piece of what lies on the shelf, picked by `pick`: the same object as long as all in it is the same. */
export function usePiece<T, P extends object>(from: Shelf<T>, pick: (value: T) => P): P {
  const last = useRef<P | null>(null);
  return useSyncExternalStore(from.subscribe, () => {
    const next = pick(from.get());
    if (last.current === null || !alike(last.current, next)) last.current = next;
    return last.current;
  });
}
