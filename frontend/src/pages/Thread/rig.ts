/** The rig on the bench: the simulate document itself, and small steps on it. Nothing is computed here. */
import type { Problem, Schemas } from "../../api/client";

export type RigDoc = Schemas["SimulateRequest"];
export type Answer = Schemas["SimulateAnswer"];
export type TiedFly = Schemas["TiedFly"];
export type Piece = Schemas["PieceDoc"];

export const START: RigDoc = {
  version: 1,
  line: { family: "sinking", label_ips: 3, weight_class: 7, density_profile: "level", length_m: 30 },
  leader: [
    { length_m: 2.1336, diameter_mm: 0.23, material: "fluorocarbon" },
    { length_m: 1.524, diameter_mm: 0.2, material: "fluorocarbon" },
  ],
  flies: [
    { name: "Slim pupa", from_line_m: 2.1336, dropper_m: 0.15, submerged_g: 0.03, sink_m_s: 0.06 },
    { name: "Beaded pupa", from_line_m: 3.6576, dropper_m: 0, submerged_g: 0.15, sink_m_s: 0.14 },
  ],
  cast_m: 18,
  slack: 0,
  water_depth_m: 6,
  water_temperature_c: 10,
  countdown_s: 25,
  retrieve: { kind: "hand-twist", speed_m_s: 0.15 },
  hang_s: 6,
  band: true,
  doubt: {},
};

export const leaderLength = (rig: RigDoc) => rig.leader.reduce((sum, piece) => sum + piece.length_m, 0);

export type Point = [number, number];

const pair = (row: number[]): Point => [row[0] ?? 0, row[1] ?? 0];

export function bedOf(rig: RigDoc): Point[] {
  if (rig.bed && rig.bed.length > 0) return rig.bed.map(pair);
  return [[0, rig.water_depth_m ?? 6]];
}

export const deepest = (rig: RigDoc) => Math.max(...bedOf(rig).map(([, z]) => z), 0.5);

/** The fault that belongs to a field, by the start of its path. */
export function faultAt(problems: Problem[], ...paths: string[]): Problem | undefined {
  return problems.find((p) => paths.some((path) => p.path === path || p.path.startsWith(`${path}.`)));
}

export type Phase = "sink" | "retrieve" | "still" | "hang";

export function phaseAt(answer: Answer, rig: RigDoc, t: number): Phase {
  if (t < answer.countdown_s) return "sink";
  if (t > answer.fished_to_s) return "hang";
  return rig.retrieve.kind === "static" ? "still" : "retrieve";
}

export interface FlyNow {
  name: string;
  x: number;
  depth: number;
  low: number;
  high: number;
}

/** The way of a fly [x, depth] before and after a time. */
export function wayOf(fly: Answer["flies"][number], t: number): { done: Point[]; ahead: Point[] } {
  const at = (row: number[]): Point => [row[1] ?? 0, row[2] ?? 0];
  return {
    done: fly.track.filter((row) => (row[0] ?? 0) <= t).map(at),
    ahead: fly.track.filter((row) => (row[0] ?? 0) >= t).map(at),
  };
}

/** Where each fly is at a time: the line between two rows of what the server sent. */
export function fliesAt(answer: Answer, t: number): FlyNow[] {
  return answer.flies.map((fly) => {
    const rows = fly.track;
    let k = rows.findIndex((row) => (row[0] ?? 0) >= t);
    if (k < 0) k = rows.length - 1;
    const b = rows[k] ?? [];
    const a = rows[Math.max(0, k - 1)] ?? b;
    const [from, to] = [a[0] ?? 0, b[0] ?? 0];
    const part = to === from ? 0 : Math.min(1, Math.max(0, (t - from) / (to - from)));
    const mix = (i: number) => (a[i] ?? 0) + ((b[i] ?? 0) - (a[i] ?? 0)) * part;
    return { name: fly.name, x: mix(1), depth: mix(2), low: mix(3), high: mix(4) };
  });
}

/** The shape of the whole thread nearest to a time. */
export function shapeAt(answer: Answer, t: number): Point[] {
  let best = answer.line_track[0];
  for (const shape of answer.line_track) {
    if (best && Math.abs(shape.t_s - t) < Math.abs(best.t_s - t)) best = shape;
  }
  return best?.points.map(pair) ?? [];
}
