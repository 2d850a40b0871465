/** Reading off the table the server sent; nothing is computed here but the line between two rows. */
import type { Schemas } from "../api/client";
import { paceText } from "./paces";
import { type DepthUnit, depthText } from "./units";

type Row = Schemas["DepthAt"];
type Counted = Pick<
  Schemas["SetUpOut"],
  "count_s" | "estimate_m" | "target_m" | "low_m" | "high_m" | "sink_table"
>;
export interface DepthNow {
  depth: number | null;
  low: number | null;
  high: number | null;
  touching: boolean;
}

const NOWHERE: DepthNow = { depth: null, low: null, high: null, touching: false };

function mix(a: number | null, b: number | null, part: number): number | null {
  return a === null || b === null ? null : a + (b - a) * part;
}

/** Where the fly is `t` seconds after the line landed, by the set-up's table; held at its ends. */
export function depthAt(table: Row[], t: number): DepthNow {
  const first = table[0];
  const last = table.at(-1);
  if (!first || !last) return NOWHERE;
  const next = table.findIndex((row) => row.t_s >= t);
  const b = next === -1 ? last : (table[next] ?? last);
  const a = next <= 0 ? b : (table[next - 1] ?? b);
  const part = b.t_s === a.t_s ? 0 : (t - a.t_s) / (b.t_s - a.t_s);
  return {
    depth: mix(a.depth_m, b.depth_m, part),
    low: mix(a.low_m, b.low_m, part),
    high: mix(a.high_m, b.high_m, part),
    touching: a.touching || b.touching,
  };
}

/** When the fly lies on the bed by the table, in seconds; null if it does not. */
export function bottomAt(table: Row[]): number | null {
  return table.find((row) => row.touching)?.t_s ?? null;
}

/** A new count's depth: the set-up's own, moved by as much as the sinking fly is deeper or higher after that count. */
export function atCount(
  setUp: Counted,
  count: number,
): Pick<Schemas["SpellBody"], "count_s" | "depth_m" | "low_m" | "high_m"> {
  const last = setUp.sink_table.at(-1)?.t_s ?? count;
  const held = Math.max(0, Math.min(count, last));
  const sunk = (t: number) => depthAt(setUp.sink_table, t).depth ?? 0;
  const by = sunk(held) - sunk(setUp.count_s ?? held);
  const moved = (depth: number) => Math.max(0, depth + by);
  return {
    count_s: held,
    depth_m: moved(setUp.estimate_m ?? setUp.target_m),
    low_m: moved(setUp.low_m),
    high_m: moved(setUp.high_m),
  };
}

/** Both depths of a count, said in one way wherever a count is told: at its end, and as it is brought back. */
function countText(unit: DepthUnit, countS: number, atM: number | null, runsM: number | null): string {
  if (runsM === null) return `${countS} s`;
  const runs = depthText(unit, runsM);
  if (countS === 0) return `0 s: straight back, runs about ${runs}`;
  if (atM === null) return `${countS} s, then runs about ${runs}`;
  const at = depthText(unit, atM);
  return at === runs ? `${countS} s: about ${at}` : `${countS} s: ${at}, then runs about ${runs}`;
}

/** The same for a set-up, at its own count or at another of its ladder. */
export function setUpCount(unit: DepthUnit, setUp: Counted, countS = setUp.count_s): string {
  if (countS === null) return "";
  const at = depthAt(setUp.sink_table, countS).depth;
  const runs = setUp.estimate_m === null ? null : (atCount(setUp, countS).depth_m ?? null);
  return countText(unit, countS, at, runs);
}

/** A step of the ladder: a count or another pace with both its depths, or how deep to hang it. */
export function rungText(unit: DepthUnit, rung: Schemas["Rung"]): string {
  if (rung.count_s === null) return depthText(unit, rung.float_hang_m ?? rung.depth_m);
  const pace = rung.pace ? `${paceText(rung.pace)}, ` : "";
  const counted = countText(unit, rung.count_s, rung.at_count_m ?? null, rung.depth_m);
  const lift = rung.lift_off_s == null ? "" : `, lift off after ${Math.round(rung.lift_off_s)} s`;
  return `${pace}${counted}${lift}`;
}

/** The same for a stretch as it is or was fished; its set-up gives the depth at the count, where it is known. */
export function spellCount(
  unit: DepthUnit,
  spell: Pick<Schemas["SpellBody"], "count_s" | "depth_m">,
  setUp: Counted | undefined,
): string {
  if (spell.count_s == null) return "";
  const at = setUp ? depthAt(setUp.sink_table, spell.count_s).depth : null;
  const known = !setUp || setUp.estimate_m !== null;
  return countText(unit, spell.count_s, at, known ? (spell.depth_m ?? null) : null);
}
