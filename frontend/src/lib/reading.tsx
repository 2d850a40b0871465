/** The reading in hand: kept on this device as it is typed, sent when it can be read, planned from at once. */
import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, type ReactNode, useContext, useEffect, useMemo, useRef, useState } from "react";
import { ApiError, api, need, type Problem, type Schemas } from "../api/client";
import { keepReady } from "../offline/ready";
import { again } from "./again";
import { type Compared, type Day, dayBody, useStoredDay } from "./day";
import { carriedOver, type Draft, emptyDraft, type PlanBody, type ReadBefore, readDraft } from "./draft";
import { useReader } from "./session";
import { fromBoxTime, notADay } from "./time";
import { type Aside, useDraft } from "./useDraft";
import type { Water } from "./waters";

const TEN_MINUTES = 600_000;

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
  /** "ahead": for an hour to come, which is no reading of the water yet. */
  saved: "typing" | "saved" | "kept here" | "ahead";
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

/** Send the reading to the server once it has stood for a while and can be read. */
function useKeep(
  water: Water,
  draft: Draft,
  body: PlanBody,
  ready: boolean,
  onSaved: () => void,
): InHand["saved"] {
  const client = useQueryClient();
  const [state, setState] = useState<InHand["saved"]>("saved");
  const sent = useRef("");
  const settled = useSettled(body, 1500);
  useEffect(() => {
    const text = JSON.stringify([settled.place, settled.reading, settled.sightings, settled.samples]);
    // Only what stands on the page now is sent: never a body from before the stored reading arrived.
    if (!ready || settled !== body || text === sent.current) return;
    if (new Date(settled.when).getTime() > Date.now() + TEN_MINUTES) return setState("ahead");
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
        onSaved();
        void again(client, ["season", water.id], ["reading", draft.id]);
      })
      .catch(() => setState("kept here"));
  }, [settled, body, ready, water.id, draft.id, onSaved, client]);
  return state;
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

export function ReadingProvider({ water, planned, older, children }: Props) {
  const { name, settings } = useReader();
  const { draft, write, waiting, startFromLast, touched, aside, saved: onSaved } = useDraft(water, older);
  const { day, changeDay } = useStoredDay(`day:${name}:${water.id}`);
  const [compared, compareWith] = useState<Compared | null>(null);
  const typed = useMemo(() => readDraft(draft), [draft]);
  const now = Math.floor(Date.now() / TEN_MINUTES) * TEN_MINUTES;
  const chosen = useMemo(
    () => (draft.when ? fromBoxTime(draft.when, water.time_zone ?? "UTC") : null),
    [draft.when, water.time_zone],
  );
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
      compared_with: comparedWith(draft, day, settings.schools, compared),
    }),
    [read.body, draft, day, place, water.id, chosen, now, settings.schools, compared],
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
    if (!plan.isSuccess || plan.isPlaceholderData) return;
    client.setQueryData(["last-plan", water.id], plan.data);
    const at = new Date().toISOString();
    void keepReady(water.id, { body: JSON.parse(key) as PlanBody, plan: plan.data, read: true, at });
  }, [plan.isSuccess, plan.isPlaceholderData, plan.data, client, water.id, key]);
  const lastGood = client.getQueryData<Schemas["PlanAnswer"]>(["last-plan", water.id]);
  const fromServer = plan.error instanceof ApiError && plan.error.status === 422 ? plan.error.problems : [];
  const problems = [...read.problems, ...(readable ? fromServer : [])];
  const saved = useKeep(
    water,
    draft,
    body,
    touched && readable && plan.isSuccess && !plan.isPlaceholderData,
    onSaved,
  );
  const value: InHand = {
    draft,
    change: (part) => write({ ...draft, ...part }),
    startFresh: () => write(emptyDraft(settings)),
    startNew: () => {
      const { when, place, reading, sightings, samples } = body;
      write(carriedOver(draft, { when, place, reading, sightings, samples } as ReadBefore, settings));
    },
    older,
    startFromLast,
    problemAt: (path) => problems.find((p) => p.path === path),
    rowPath: (row) => `reading.profile[${read.rowOf.indexOf(row)}]`,
    body,
    plan: plan.data ?? lastGood,
    previewed: plan.isPlaceholderData ? undefined : plan.data,
    mending: problems.length > 0,
    planning: plan.isFetching || waiting || (readable && key !== text),
    fetching: waiting,
    error: problems.length > 0 && fromServer.every((p) => p.path.startsWith("reading")) ? null : plan.error,
    again: () => void plan.refetch(),
    saved,
    aside,
    day,
    changeDay,
    compareWith: (before) => {
      if (before === null && draft.before !== "") write({ ...draft, before: "" });
      compareWith(before);
    },
  };
  return <Context.Provider value={value}>{children}</Context.Provider>;
}
