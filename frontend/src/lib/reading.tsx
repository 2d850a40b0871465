/** The reading in hand: kept on this device as it is typed, sent when it can be read, planned from at once. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import {
  createContext,
  type ReactNode,
  useCallback,
  useContext,
  useEffect,
  useLayoutEffect,
  useMemo,
  useState,
} from "react";
import { ApiError, type Problem, type Schemas } from "../api/client";
import { keepReady } from "../offline/ready";
import { type Compared, type Day, dayBody, useStoredDay } from "./day";
import { carriedOver, type Draft, emptyDraft, type PlanBody, type ReadBefore, readDraft } from "./draft";
import { previewAsked } from "./preview";
import { useReader } from "./session";
import { type Shelf, shelf, usePiece } from "./shelf";
import { fromBoxTime, notADay, TEN_MINUTES_MS } from "./time";
import { type Aside, useDraft } from "./useDraft";
import { type Saved, useKeep } from "./useKeep";
import { useSettled } from "./useSettled";
import type { Water } from "./waters";

interface InHand {
  draft: Draft;
  change: (part: Partial<Draft>) => void;
  startFresh: () => void;
  /** A new reading, now: the one in hand stays as it was, temperatures and place come along. */
  startNew: () => void;
  /** The older reading that is being mended, if one is. */
  older: Schemas["ReadingOut"] | null;
  startFromLast: (() => void) | null;
  /** Faults by path, from typing and from the server. */
  problemAt: (path: string) => Problem | undefined;
  /** The path the server uses for a row of the table. */
  rowPath: (row: number) => string;
  body: PlanBody;
  /** What is drawn of it before the server has answered. */
  drawn: Pick<PlanBody["reading"] & object, "profile" | "wind_m_s">;
  /** The plan for the reading, or the last good one while a reading needs mending. */
  plan: Schemas["PlanAnswer"] | undefined;
  /** The plan of exactly this body, as it can be begun with. */
  previewed: Schemas["PreviewOut"] | undefined;
  mending: boolean;
  planning: boolean;
  /** The newest stored reading is still being fetched; typing starts when it is here. */
  fetching: boolean;
  error: unknown;
  again: () => void;
  saved: Saved;
  aside: Aside | null;
  day: Day;
  changeDay: (part: Partial<Day>) => void;
  /** Tell the next plan what schools and aim were before a switch, so that it says what the switch changed. */
  compareWith: (before: Compared | null) => void;
}

const Context = createContext<Shelf<InHand> | null>(null);

function useHand(): Shelf<InHand> {
  const hand = useContext(Context);
  if (!hand) throw new Error("no water in hand");
  return hand;
}

/** Parts of the reading in hand; who looks at them is drawn anew when one of them has changed. */
export function useReading<K extends keyof InHand>(...names: K[]): Pick<InHand, K> {
  return usePiece(
    useHand(),
    (hand) => Object.fromEntries(names.map((name) => [name, hand[name]])) as Pick<InHand, K>,
  );
}

/** Boxes of the draft, and how to change them; who looks at them is drawn anew when one of them is typed in. */
export function useBoxes<K extends keyof Draft>(...names: K[]) {
  const hand = useHand();
  const draft = usePiece(
    hand,
    ({ draft }) => Object.fromEntries(names.map((name) => [name, draft[name]])) as Pick<Draft, K>,
  );
  return { draft, change: hand.get().change };
}

/** The hand as it is when it is asked: for what is done at a press, and shows nothing of it. */
export function useHandNow(): () => InHand {
  return useHand().get;
}

/** What the server reads of it, once nothing has been typed for so long. */
export function useStood(ms: number): string {
  const hand = useHand();
  const told = useCallback(() => {
    const { when, place, reading, sightings, samples } = hand.get().body;
    return JSON.stringify({ when, place, reading, sightings, samples });
  }, [hand]);
  const [text, setText] = useState(told);
  useEffect(() => {
    const look = () => setText(told());
    let timer = setTimeout(look, ms);
    const leave = hand.subscribe(() => {
      clearTimeout(timer);
      timer = setTimeout(look, ms);
    });
    return () => {
      clearTimeout(timer);
      leave();
    };
  }, [hand, told, ms]);
  return text;
}

interface Props {
  water: Water;
  planned: boolean;
  older: Schemas["ReadingOut"] | null;
  children: ReactNode;
}

/** What the plan is compared with: schools before a switch, or the reading this one followed on. */
function comparedWith(draft: Draft, day: Day, schools: Compared["schools"], asked: Compared | null) {
  if (asked || draft.before === "") return asked;
  return { schools: schools ?? {}, aim: day.aim, read: JSON.parse(draft.before) as ReadBefore } as Compared;
}

/** A value that is the same object as long as it says the same. */
function useSame<T>(value: T): T {
  const text = JSON.stringify(value);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what it says is what counts
  return useMemo(() => value, [text]);
}

/** What was typed, as the server takes it, with its faults. */
function useBody(water: Water, draft: Draft, day: Day, compared: Compared | null) {
  const { settings } = useReader();
  const typed = useMemo(() => readDraft(draft), [draft]);
  const now = Math.floor(Date.now() / TEN_MINUTES_MS) * TEN_MINUTES_MS;
  const chosen = useMemo(
    () => (draft.when ? fromBoxTime(draft.when, water.time_zone ?? "UTC") : null),
    [draft.when, water.time_zone],
  );
  const noDay = draft.when !== "" && chosen === null;
  const problems = noDay ? [...typed.problems, notADay("when")] : typed.problems;
  const place = water.places.some((p) => p.name === draft.place) ? draft.place : null;
  const body: PlanBody = useMemo(
    () => ({
      ...typed.body,
      ...dayBody(day),
      place,
      water_id: water.id,
      when: (chosen ?? new Date(now)).toISOString(),
      compared_with: comparedWith(draft, day, settings.schools, compared),
    }),
    [typed.body, draft, day, place, water.id, chosen, now, settings.schools, compared],
  );
  return { body, problems, rowOf: typed.rowOf };
}

/** The plan of the body once it has stood for a moment; kept on the device for the dark. */
function usePreview(water: Water, body: PlanBody, ready: boolean) {
  const { settings } = useReader();
  const client = useQueryClient();
  const text = JSON.stringify(body);
  const key = useSettled(text, 150);
  const asked = useMemo(() => JSON.parse(key) as PlanBody, [key]);
  const settled = key === text;
  // Only what stands on the page now is planned for: not a body from before the stored reading arrived.
  const plan = useQuery(previewAsked(asked, settings, ready && settled));
  useEffect(() => {
    if (!plan.isSuccess || plan.isPlaceholderData) return;
    client.setQueryData(["last-plan", water.id], plan.data);
    const at = new Date().toISOString();
    void keepReady(water.id, { body: asked, plan: plan.data, read: true, at });
  }, [plan.isSuccess, plan.isPlaceholderData, plan.data, client, water.id, asked]);
  const lastGood = client.getQueryData<Schemas["PlanAnswer"]>(["last-plan", water.id]);
  return { plan, settled, lastGood };
}

export function ReadingProvider({ water, planned, older, children }: Props) {
  const { name, settings } = useReader();
  const { draft, change, waiting, startFromLast, touched, aside, saved: onSaved } = useDraft(water, older);
  const { day, changeDay } = useStoredDay(`day:${name}:${water.id}`);
  const [compared, setCompared] = useState<Compared | null>(null);
  const { body, problems: typed, rowOf } = useBody(water, draft, day, compared);
  const readable = typed.length === 0;
  const { plan, settled, lastGood } = usePreview(water, body, planned && readable && !waiting);
  const fromServer = plan.error instanceof ApiError && plan.error.status === 422 ? plan.error.problems : [];
  const problems = useSame([...typed, ...(readable ? fromServer : [])]);
  const rows = useSame(rowOf);
  const planKnown = plan.isSuccess && !plan.isPlaceholderData;
  const saved = useKeep(water, draft, body, touched && readable && planKnown, onSaved);
  const startFresh = useCallback(() => change(emptyDraft(settings)), [change, settings]);
  const [hand] = useState(() => shelf<InHand | null>(null) as Shelf<InHand>);
  const startNew = useCallback(() => {
    const { draft, body } = hand.get();
    const { when, place, reading, sightings, samples } = body;
    change(carriedOver(draft, { when, place, reading, sightings, samples } as ReadBefore, settings));
  }, [hand, change, settings]);
  const compareWith = useCallback(
    (before: Compared | null) => {
      if (before === null && draft.before !== "") change({ before: "" });
      setCompared(before);
    },
    [change, draft.before],
  );
  const { refetch } = plan;
  const value: InHand = {
    ...{ draft, change, startFresh, startNew, startFromLast, older, aside, saved },
    problemAt: useCallback((path: string) => problems.find((p) => p.path === path), [problems]),
    rowPath: useCallback((row: number) => `reading.profile[${rows.indexOf(row)}]`, [rows]),
    body,
    drawn: useSame({ profile: body.reading?.profile, wind_m_s: body.reading?.wind_m_s }),
    plan: plan.data ?? lastGood,
    previewed: plan.isPlaceholderData ? undefined : plan.data,
    mending: problems.length > 0,
    planning: plan.isFetching || waiting || (readable && !settled),
    fetching: waiting,
    error: problems.length > 0 && fromServer.every((p) => p.path.startsWith("reading")) ? null : plan.error,
    again: useCallback(() => void refetch(), [refetch]),
    ...{ day, changeDay, compareWith },
  };
  hand.lay(value);
  useLayoutEffect(hand.tell);
  return <Context.Provider value={hand}>{children}</Context.Provider>;
}
