/** What is added afterwards, to be filled in. */
import type { Event, Outing, Spell } from "../../offline/overlay";

/** A take that was forgotten on the water, as far as the stretch can tell of it: its end, its depth, its only fly. */
export function forgotten(spell: Spell): Event {
  return {
    id: crypto.randomUUID(),
    revision: 0,
    spell_id: spell.id,
    kind: "take",
    phase: "",
    occurred_at: spell.ended_at ?? new Date().toISOString(),
    t_s: null,
    depth_m: spell.depth_m ?? null,
    low_m: spell.low_m ?? null,
    high_m: spell.high_m ?? null,
    fly: spell.flies?.length === 1 ? (spell.flies[0] ?? "") : "",
    species: "",
    length_m: null,
    released: null,
    note: "",
  };
}

/** A stretch to be filled in, that begins where the last one ended. */
export function freshSpell(outing: Outing): Spell {
  const ends = outing.spells.map((one) => one.ended_at ?? one.started_at).sort();
  const last = [...outing.spells].sort((a, b) => a.started_at.localeCompare(b.started_at)).at(-1);
  return {
    id: crypto.randomUUID(),
    revision: 0,
    place: last?.place ?? "",
    method: last?.method ?? "nymphs",
    title: "",
    line_title: "",
    depth_m: null,
    low_m: null,
    high_m: null,
    count_s: null,
    pace: "static",
    flies: last?.flies ?? [],
    set_up_index: null,
    started_at: ends.at(-1) ?? outing.started_at,
    ended_at: outing.ended_at,
  };
}
