/** A depth found by one method, carried to another: the count or hang that puts the other set-up's point fly there. */
import type { Schemas } from "../../api/client";
import { atCount } from "../../lib/counted";
import { type Outing, TAKE_KINDS } from "../../offline/overlay";

type SetUp = Schemas["SetUpOut"];
const NEAR_M = 0.05;

/** Depth of the last take that has one, in metres. */
export function lastTakeM(outing: Outing): number | null {
  const takes = outing.events
    .filter((e) => TAKE_KINDS.includes(e.kind) && e.depth_m != null)
    .sort((a, b) => a.occurred_at.localeCompare(b.occurred_at));
  return takes.at(-1)?.depth_m ?? null;
}

/** The spell's depth, band and count for a set-up fished at a depth; null where it does not get there. */
export function carriedTo(setUp: SetUp, depthM: number): Partial<Schemas["SpellBody"]> | null {
  if (setUp.float_hang_m !== null) return { depth_m: depthM, low_m: null, high_m: null };
  if (setUp.count_s === null) return null;
  const free = setUp.sink_table.filter((one) => !one.touching).map((one) => atCount(setUp, one.t_s));
  return free.find((one) => (one.depth_m ?? 0) >= depthM - NEAR_M) ?? null;
}
