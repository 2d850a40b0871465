/** Reading off the table the server sent; nothing is computed here but the line between two rows. */
import type { Schemas } from "../../api/client";

type Row = Schemas["DepthAtOut"];
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
