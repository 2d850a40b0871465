/** The reading in hand: kept on this device as it is typed, sent when it can be read, planned from at once. */
import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import {
  createContext,
  type ReactNode,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { ApiError, api, need, type Problem, type Schemas } from "../api/client";
import { type Compared, type Day, dayBody, useStoredDay } from "./day";
import { type Draft, draftFrom, emptyDraft, keptDraft, type PlanBody, readDraft } from "./draft";
import { useReader } from "./session";
import { forget, load, save } from "./store";
import { boxTime, dayAndClock, fromBoxTime, notADay } from "./time";
import type { Water } from "./waters";

const TEN_MINUTES = 600_000;
const DAY_MS = 86_400_000;
/** A stored reading this young is gone on with; an older one is the start of a new one. */
const SAME_READING_MS = 3 * 3_600_000;

interface InHand {
  draft: Draft;
  change: (part: Partial<Draft>) => void;
  startFresh: () => void;
  startFromLast: (() => void) | null;
  /** Faults by path, from typing and from the server. */
  problemAt: (path: string) => Problem | undefined;
  /** The path the server uses for a row of the table. */
  rowPath: (row: number) => string;
  body: PlanBody;
  /** The plan for the reading, or the last good one while a reading needs mending. */
  plan: Schemas["PlanAnswer"] | undefined;
  mending: boolean;
  planning: boolean;
  /** The newest stored reading is still being fetched; typing starts when it is here. */
  fetching: boolean;
  error: unknown;
  again: () => void;
  saved: "typing" | "saved" | "kept here";
  aside: Aside | null;
  day: Day;
  changeDay: (part: Partial<Day>) => void;
  /** Tell the next plan what schools and aim were before a switch, so that it says what the switch changed. */
  compareWith: (before: Compared | null) => void;
}

const Context = createContext<InHand | null>(null);

export function useReading(): InHand {
  const hand = useContext(Context);
  if (!hand) throw new Error("no water in hand");
  return hand;
}

function useSettled<T>(value: T, ms: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  return settled;
}

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
function useDraft(water: Water) {
  const { name, settings } = useReader();
  const key = `draft:${name}:${water.id}`;
  const zone = water.time_zone ?? "UTC";
  const [draft, setDraft] = useState<Draft | null>(() => {
    const kept = load<unknown>(key, null);
    const found = kept === null ? null : keptDraft(kept, settings);
    if (kept === null || (found && ofToday(found, zone))) return found;
    // Unreadable, or another day's: it never stands for today.
    if (save(`aside:${key}`, kept)) forget(key);
    return null;
  });
  const [aside, setAside] = useState<unknown>(() => load<unknown>(`aside:${key}`, null));
  const stored = useQuery({
    queryKey: ["readings", water.id],
    queryFn: () =>
      need(
        api.GET("/api/waters/{water_id}/readings", {
          params: { path: { water_id: water.id }, query: { count: 1 } },
        }),
      ),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const last = stored.data?.[0];
  const age = last ? Date.now() - new Date(last.taken_at).getTime() : Number.POSITIVE_INFINITY;
  const recent = age < DAY_MS ? last : undefined;
  const goOn = age < SAME_READING_MS;
  const [freshId] = useState(() => crypto.randomUUID());
  const waiting = draft === null && stored.isPending && stored.fetchStatus !== "paused";
  const current = useMemo(() => {
    if (draft) return draft;
    if (!recent) return emptyDraft(settings);
    const found = draftFrom(recent, settings);
    return goOn ? found : { ...found, id: freshId };
  }, [draft, recent, settings, goOn, freshId]);
  const write = useCallback(
    (changed: Draft) => {
      const next = { ...changed, at: new Date().toISOString() };
      setDraft(next);
      save(key, next);
    },
    [key],
  );
  const dropAside = () => {
    forget(`aside:${key}`);
    setAside(null);
  };
  const again = aside === null ? null : keptDraft(aside, settings);
  const setBy: Aside | null =
    aside === null
      ? null
      : {
          at: again?.at ? dayAndClock(again.at, zone) : "",
          text: JSON.stringify(aside, null, 1),
          takeUp: again
            ? () => {
                write({ ...again, id: crypto.randomUUID() });
                dropAside();
              }
            : null,
          drop: dropAside,
        };
  const startFromLast = last ? () => write({ ...draftFrom(last, settings), id: crypto.randomUUID() }) : null;
  return { draft: current, write, waiting, startFromLast, touched: draft !== null, aside: setBy };
}

/** Send the reading to the server once it has stood for a while and can be read. */
function useKeep(water: Water, draft: Draft, body: PlanBody, ready: boolean): InHand["saved"] {
  const [state, setState] = useState<InHand["saved"]>("saved");
  const sent = useRef("");
  const settled = useSettled(body, 1500);
  useEffect(() => {
    const text = JSON.stringify([settled.place, settled.reading, settled.sightings, settled.samples]);
    // Only what stands on the page now is sent: never a body from before the stored reading arrived.
    if (!ready || settled !== body || text === sent.current) return;
    const path = { water_id: water.id, reading_id: draft.id };
    const { place, reading, sightings, samples, when } = settled;
    setState("typing");
    need(
      api.PUT("/api/waters/{water_id}/readings/{reading_id}", {
        params: { path },
        body: { place, reading, sightings, samples, taken_at: when },
      }),
    )
      .then(() => {
        sent.current = text;
        setState("saved");
      })
      .catch(() => setState("kept here"));
  }, [settled, body, ready, water.id, draft.id]);
  return state;
}

interface Props {
  water: Water;
  planned: boolean;
  children: ReactNode;
}

export function ReadingProvider({ water, planned, children }: Props) {
  const { name, settings } = useReader();
  const { draft, write, waiting, startFromLast, touched, aside } = useDraft(water);
  const { day, changeDay } = useStoredDay(`day:${name}:${water.id}`);
  const [compared, compareWith] = useState<Compared | null>(null);
  const typed = useMemo(() => readDraft(draft), [draft]);
  const now = Math.floor(Date.now() / TEN_MINUTES) * TEN_MINUTES;
  const chosen = draft.when ? fromBoxTime(draft.when, water.time_zone ?? "UTC") : null;
  const noDay = draft.when !== "" && chosen === null;
  const read = useMemo(
    () => (noDay ? { ...typed, problems: [...typed.problems, notADay("when")] } : typed),
    [typed, noDay],
  );
  const place = water.places.some((p) => p.name === draft.place) ? draft.place : null;
  const body: PlanBody = useMemo(
    () => ({
      ...read.body,
      ...dayBody(day),
      place,
      water_id: water.id,
      when: (chosen ?? new Date(now)).toISOString(),
      compared_with: compared,
    }),
    [read.body, day, place, water.id, chosen, now, compared],
  );
  const readable = read.problems.length === 0;
  const text = JSON.stringify(body);
  const key = useSettled(text, 150);
  const plan = useQuery({
    queryKey: ["plan", water.id, key, settings],
    queryFn: ({ signal }) =>
      need(api.POST("/api/plans/preview", { body: JSON.parse(key) as PlanBody, signal })),
    // Only what stands on the page is planned for: not a body from before the stored reading arrived.
    enabled: planned && readable && !waiting && key === text,
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const client = useQueryClient();
  useEffect(() => {
    if (plan.isSuccess && !plan.isPlaceholderData) client.setQueryData(["last-plan", water.id], plan.data);
  }, [plan.isSuccess, plan.isPlaceholderData, plan.data, client, water.id]);
  const lastGood = client.getQueryData<Schemas["PlanAnswer"]>(["last-plan", water.id]);
  const fromServer = plan.error instanceof ApiError && plan.error.status === 422 ? plan.error.problems : [];
  const problems = [...read.problems, ...(readable ? fromServer : [])];
  const saved = useKeep(water, draft, body, touched && readable && plan.isSuccess && !plan.isPlaceholderData);
  const value: InHand = {
    draft,
    change: (part) => write({ ...draft, ...part }),
    startFresh: () => write(emptyDraft(settings)),
    startFromLast,
    problemAt: (path) => problems.find((p) => p.path === path),
    rowPath: (row) => `reading.profile[${read.rowOf.indexOf(row)}]`,
    body,
    plan: plan.data ?? lastGood,
    mending: problems.length > 0,
    planning: plan.isFetching || waiting || (readable && key !== text),
    fetching: waiting,
    error: problems.length > 0 && fromServer.every((p) => p.path.startsWith("reading")) ? null : plan.error,
    again: () => void plan.refetch(),
    saved,
    aside,
    day,
    changeDay,
    compareWith,
  };
  return <Context.Provider value={value}>{children}</Context.Provider>;
}
