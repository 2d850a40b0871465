/** A day in the dark: an outing begun without the server, and what was worked out beforehand. */
import type { Schemas } from "../api/client";
import { nowIso, nowMs } from "../lib/clock";
import type { Write } from "./outbox";
import { type Outing, type Spell, TAKE_KINDS } from "./overlay";
import type { ReadyDay } from "./ready";

type Phase = Schemas["PhaseOut"];

const NO_RATE = { count: 0, hours: 0, per_hour: null, low: null, high: null };

interface Water {
  id: string;
  name: string;
  time_zone?: string;
  max_depth_m: number;
}

/** The ids a start is asked with: asked again, on whatever way, it is the same start. */
export interface StartIds {
  outing: string;
  spell: string;
  plan: string;
}

export const startIds = (): StartIds => ({
  outing: crypto.randomUUID(),
  spell: crypto.randomUUID(),
  plan: crypto.randomUUID(),
});

/** An outing made on this device, with nothing in it yet. */
export function bareOuting(water: Water, id: string, started_at: string, ended_at: string | null): Outing {
  return {
    id,
    revision: 0,
    water_id: water.id,
    water_name: water.name,
    time_zone: water.time_zone ?? "UTC",
    max_depth_m: water.max_depth_m,
    longest_fight_s: 0,
    started_at,
    ended_at,
    ...{ hours: 0, takes: 0, landed: 0, plucks: 0, methods: [], note: "", wind: "" },
    ...{ plan_id: null, plan: null, starts: [], plan_lost: false },
    ...{ spells: [], events: [], photos: [], landed_rate: NO_RATE, takes_rate: NO_RATE, by_depth: [] },
  };
}

/** An outing begun here, and the writes that begin it on the server. */
export function begunInTheDark(
  water: Water,
  { body, plan }: Pick<ReadyDay, "body" | "plan">,
  key: string,
  ids: StartIds,
) {
  const index = plan.set_ups.findIndex((one) => one.key === key);
  const how = plan.starts[index];
  if (!how) return null;
  const started_at = nowIso();
  const { outing: id, spell: spellId, plan: planId } = ids;
  const outing: Outing = {
    ...bareOuting(water, id, started_at, null),
    longest_fight_s: plan.longest_fight_s,
    methods: [how.title],
    plan_id: planId,
    plan,
    starts: plan.starts,
  };
  const writes: Write[] = [
    { kind: "outing", outing: id, id, body: { water_id: water.id, started_at, ended_at: null, note: "" } },
    { kind: "spell", outing: id, id: spellId, body: { ...how, started_at, ended_at: null } },
    { kind: "plan", outing: id, id: planId, body },
  ];
  return { outing, writes };
}

/** Whether a stretch is fished as a phase has it. */
function isPhase(phase: Phase, outing: Outing, spell: Spell): boolean {
  const key = outing.plan?.set_ups[spell.set_up_index ?? -1]?.key;
  const deep =
    phase.float_hang_m == null ||
    (spell.depth_m != null && Math.abs(spell.depth_m - phase.float_hang_m) < 0.35);
  return (
    phase.set_up === key &&
    phase.place === spell.place &&
    phase.pace === spell.pace &&
    (phase.count_s ?? null) === (spell.count_s ?? null) &&
    deep &&
    phase.flies.at(-1) === spell.flies?.at(-1)
  );
}

export interface DarkStep {
  /** Minutes to stay; 0 where it is time for `next`. */
  stay: number;
  next: Schemas["StepOut"] | null;
  /** When it was worked out. */
  at: string;
}

/** A change of conditions makes what was worked out before worth half: one stays half as long. */
const AFTER_A_TURN = 0.5;

/** What was worked out beforehand for what is fished now; null where it was not foreseen. */
export function darkStep(
  ways: { phases: Phase[]; spell?: string; at: string }[],
  outing: Outing,
  spell: Spell,
  turned: boolean,
  now = nowMs(),
): DarkStep | null {
  for (const { phases, spell: first, at } of ways) {
    const phase = phases.find((one, n) => (n === 0 && first === spell.id) || isPhase(one, outing, spell));
    if (!phase) continue;
    const takes = outing.events.filter((e) => e.spell_id === spell.id && TAKE_KINDS.includes(e.kind));
    const last = takes
      .map((e) => e.occurred_at)
      .sort()
      .at(-1);
    const minutes = (now - new Date(last ?? spell.started_at).getTime()) / 60_000;
    const most = (last ? phase.after_take_min : phase.minutes) * (turned ? AFTER_A_TURN : 1);
    return { stay: Math.max(0, Math.ceil(most - minutes)), next: phase.next ?? null, at };
  }
  return null;
}
