/** A depth found by one method, carried to another: the count or hang that puts the other set-up's point fly there. */
import type { Schemas } from "../../api/client";
import type { Outing } from "../../offline/overlay";

type SetUp = Schemas["SetUpOut"];
const TAKES = ["take", "lost", "landed"];

/** Depth of the last take that has one, in metres. */
export function lastTakeM(outing: Outing): number | null {
  const takes = outing.events
    .filter((e) => TAKES.includes(e.kind) && e.depth_m != null)
    .sort((a, b) => a.occurred_at.localeCompare(b.occurred_at));
  return takes.at(-1)?.depth_m ?? null;
}

/** The spell's depth, band and count for a set-up fished at a depth; null where it does not get there. */
export function carriedTo(setUp: SetUp, depthM: number): Partial<Schemas["SpellBody"]> | null {
  if (setUp.float_hang_m !== null) return { depth_m: depthM, low_m: null, high_m: null };
  if (setUp.count_s === null) return null;
  const row = setUp.sink_table.find((one) => (one.depth_m ?? 0) >= depthM && !one.touching);
  if (!row) return null;
  return { count_s: Math.round(row.t_s), depth_m: row.depth_m, low_m: row.low_m, high_m: row.high_m };
}
