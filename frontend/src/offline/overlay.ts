/** An outing with a write laid over it, and the bodies to write. Plain functions, no page. */
import type { Schemas } from "../api/client";
import { nowMs } from "../lib/clock";
import type { Entry, Write } from "./outbox";

export type Outing = Schemas["OutingOut"];
export type Spell = Schemas["SpellOut"];
export type Event = Schemas["EventOut"];

/** The kinds of event that are a fish felt. */
export const TAKE_KINDS: readonly string[] = ["take", "lost", "landed"];

function put<T extends { id: string }>(rows: T[], row: Partial<T> & { id: string }): T[] {
  return rows.some((r) => r.id === row.id)
    ? rows.map((r) => (r.id === row.id ? { ...r, ...row } : r))
    : [...rows, row as T];
}

type Row = { id: string; revision: number };
type Rows = Record<string, Row[] | undefined>;

/** The name an outing has its rows of a kind under: spells, events, photos. What it does not hold has none there. */
const under = (write: Write) => `${write.kind}s`;

/** The revision of the row a write changes, as the server last told it; none of a row it does not have. */
export function revisionOf(outing: Outing | undefined, write: Write): number | undefined {
  if (write.kind === "outing") return outing?.revision || undefined;
  const rows = (outing as unknown as Rows | undefined)?.[under(write)];
  return rows?.find((row) => row.id === write.id)?.revision || undefined;
}

/** The outing as it will be once a write has arrived, or is once it has: then its new `revision` is known. */
export function withWrite(outing: Outing, write: Write, revision?: number): Outing {
  const { id, body } = write;
  const at = revision === undefined ? {} : { revision };
  if (write.kind === "outing")
    return body ? ({ ...outing, ...body, ...at } as Outing) : { ...outing, revision: 0 };
  const rows = (outing as unknown as Rows)[under(write)];
  if (!rows) return outing;
  const now = body ? put(rows, { ...body, ...at, id }) : rows.filter((one) => one.id !== id);
  return { ...outing, [under(write)]: now };
}

/** An outing with everything laid over it that waits for it and was not refused. */
export function laidOver(outing: Outing, entries: readonly Entry[]): Outing {
  return entries
    .filter((entry) => entry.write.outing === outing.id && !entry.refused)
    .reduce((o, entry) => withWrite(o, entry.write), outing);
}

/** The stretch's last take, as long as nothing has ended it and a fish may still be on; the server says how long that is. */
export function openTake(outing: Outing | undefined, spellId: string, now = nowMs()): Event | undefined {
  const takes = (outing?.events ?? [])
    .filter((e) => e.spell_id === spellId && TAKE_KINDS.includes(e.kind))
    .sort((a, b) => a.occurred_at.localeCompare(b.occurred_at));
  const last = takes.at(-1);
  const open =
    last?.kind === "take" &&
    now - new Date(last.occurred_at).getTime() <= (outing?.longest_fight_s ?? 0) * 1000;
  return open ? last : undefined;
}

export function spellBody(spell: Spell): Schemas["SpellBody"] {
  const { id: _id, revision: _revision, ...body } = spell;
  return body;
}

export function eventBody(event: Event): Schemas["EventBody"] {
  const { id: _id, revision: _revision, standard_kg: _s, fulton: _f, relative_weight: _r, ...body } = event;
  return body;
}

export function outingBody(outing: Outing): Schemas["OutingBody"] {
  const { water_id, started_at, ended_at, note } = outing;
  return { water_id, started_at, ended_at, note };
}
