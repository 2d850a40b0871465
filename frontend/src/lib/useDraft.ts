/** The draft of a reading on this device: gone on with, carried over, set aside, or an older reading opened again. */
import { useQuery } from "@tanstack/react-query";
import { useCallback, useLayoutEffect, useMemo, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { asBefore, carriedOver, type Draft, draftFrom, emptyDraft, keptDraft } from "./draft";
import { useReader } from "./session";
import { forget, load, save } from "./store";
import { boxTime, dayAndClock } from "./time";
import { newestReading, type Water } from "./waters";

const DAY_MS = 86_400_000;
/** A stored reading this young is gone on with; an older one is the start of a new one. */
const SAME_READING_MS = 3 * 3_600_000;

/** What was kept on the device and does not stand for today: another day's typing, or something that cannot be read. */
export interface Aside {
  at: string;
  text: string;
  takeUp: (() => void) | null;
  drop: () => void;
}

/** True for a draft of this day on the water's clock, of the last hours, or one that names its own day. */
function ofToday(draft: Draft, zone: string): boolean {
  if (draft.when !== "") return true; // the plan says which; a day that is none is a fault at its field
  if (draft.at === "") return false;
  const now = Date.now();
  const same = boxTime(new Date(draft.at), zone).slice(0, 10) === boxTime(new Date(now), zone).slice(0, 10);
  return same || now - new Date(draft.at).getTime() < SAME_READING_MS;
}

/** Load the device's draft, or the newest stored reading if it is of the last day. */
export function useDraft(water: Water, older: Schemas["ReadingOut"] | null) {
  const { name, settings } = useReader();
  const key = `draft:${name}:${water.id}${older ? `:${older.id}` : ""}`;
  const zone = water.time_zone ?? "UTC";
  const [draft, setDraft] = useState<Draft | null>(() => {
    const kept = load<unknown>(key, null);
    const found = kept === null ? null : keptDraft(kept, settings);
    if (older) return found;
    if (kept === null || (found && ofToday(found, zone))) return found;
    // Unreadable, or another day's: it never stands for today.
    if (save(`aside:${key}`, kept)) forget(key);
    return null;
  });
  const [aside, setAside] = useState<unknown>(() => load<unknown>(`aside:${key}`, null));
  const stored = useQuery(newestReading(water.id));
  const last = stored.data?.[0];
  const age = last ? Date.now() - new Date(last.taken_at).getTime() : Number.POSITIVE_INFINITY;
  const recent = age < DAY_MS ? last : undefined;
  const goOn = age < SAME_READING_MS;
  const [freshId] = useState(() => crypto.randomUUID());
  const waiting = draft === null && older === null && stored.isPending && stored.fetchStatus !== "paused";
  const current = useMemo(() => {
    if (draft) return draft;
    if (older) return { ...draftFrom(older, settings), when: boxTime(new Date(older.taken_at), zone) };
    if (!recent) return emptyDraft(settings);
    const found = draftFrom(recent, settings);
    return goOn ? found : { ...carriedOver(found, asBefore(recent), settings), id: freshId };
  }, [draft, older, zone, recent, settings, goOn, freshId]);
  // What stands on the page now: two changes in one go add up.
  const now = useRef(current);
  useLayoutEffect(() => {
    now.current = current;
  }, [current]);
  const change = useCallback(
    (part: Partial<Draft>) => {
      const next = { ...now.current, ...part, at: new Date().toISOString() };
      now.current = next;
      setDraft(next);
      save(key, next);
    },
    [key],
  );
  const setBy = useMemo((): Aside | null => {
    if (older || aside === null) return null;
    const again = keptDraft(aside, settings);
    const drop = () => {
      forget(`aside:${key}`);
      setAside(null);
    };
    const takeUp = () => {
      change({ ...again, id: crypto.randomUUID() });
      drop();
    };
    const at = again?.at ? dayAndClock(again.at, zone) : "";
    return { at, text: JSON.stringify(aside, null, 1), takeUp: again ? takeUp : null, drop };
  }, [older, aside, settings, key, zone, change]);
  const startFromLast = useMemo(
    () => (last ? () => change({ ...draftFrom(last, settings), id: crypto.randomUUID() }) : null),
    [last, settings, change],
  );
  const saved = useCallback(() => {
    if (older) forget(key);
  }, [older, key]);
  return { draft: current, change, waiting, startFromLast, touched: draft !== null, aside: setBy, saved };
}
