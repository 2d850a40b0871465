/** What the plan hangs on the cord: the path of each fly through a cast, and what one factor does with depth. */
import { curveMonotoneX, line } from "d3-shape";
import type { Schemas } from "../api/client";
import { depthText } from "../lib/units";
import { useColumn } from "./scale";

type Trace = Schemas["TraceOut"];
type Factor = Schemas["FactorOut"];
type Point = readonly [number, number];

/** The cast from the line landing (left) to the hang (right): the point fly's path full, the droppers' thin. */
export function PathLayer({ tracks, countS }: { tracks: Trace[]; countS: number | null }) {
  const scale = useColumn();
  const longest = Math.max(...tracks.flatMap((t) => t.t_s), 1);
  const x0 = scale.cordX + 12;
  const wide = scale.width - x0 - 26;
  const x = (t: number) => x0 + (wide * t) / longest;
  const draw = line<Point>()
    .x((p) => x(p[0]))
    .y((p) => scale.y(p[1]))
    .curve(curveMonotoneX);
  return (
    <g data-layer="paths" aria-hidden="true">
      {tracks.map((track, i) => {
        const point = i === tracks.length - 1;
        const points = track.t_s.map((t, k) => [t, track.depth_m[k] ?? 0] as const);
        const mid = points[Math.floor(points.length * (point ? 0.42 : 0.3))];
        return (
          <g key={track.position}>
            <path
              d={draw(points) ?? ""}
              fill="none"
              stroke="var(--raised)"
              strokeOpacity="0.7"
              strokeWidth={point ? 6 : 4}
            />
            <path
              d={draw(points) ?? ""}
              fill="none"
              stroke="var(--take)"
              strokeWidth={point ? 2.6 : 1.4}
              strokeDasharray={point ? undefined : "7 3"}
            />
            {mid && !scale.narrow && (
              <text
                className="halo"
                x={x(mid[0]) + 8}
                y={Math.max(scale.y(mid[1]) - 6, scale.surfaceY + 13)}
                fontSize="12.5"
                fill="var(--take)"
              >
                {track.position}
              </text>
            )}
          </g>
        );
      })}
      {countS !== null && countS < longest && (
        <g>
          <path
            d={`M${x(countS)} ${scale.surfaceY}V${scale.bedY}`}
            stroke="var(--take)"
            strokeWidth="1"
            strokeDasharray="2 5"
          />
          <text className="halo" x={x(countS) + 4} y={scale.bedY - 6} fontSize="12.5" fill="var(--take)">
            {countS} s
          </text>
        </g>
      )}
    </g>
  );
}

const MEANS: Record<string, string> = {
  temperature: "var(--warm)",
  oxygen: "var(--water)",
  light: "var(--light)",
  food: "var(--weed)",
  rises: "var(--take)",
  "own-log": "var(--take)",
  found: "var(--take)",
};

/** One factor over depth: to the right of its own thread it draws fish there, to the left it keeps them away. */
export function FactorLayer({ factor, depths, word }: { factor: Factor; depths: number[]; word: string }) {
  const scale = useColumn();
  const values = factor.log_weight;
  const most = Math.max(...values.map(Math.abs), 0.5);
  const middle = scale.cordX + (scale.width - scale.cordX) * 0.52;
  const reach = Math.min(95, scale.width * 0.2);
  const points = depths.map((d, i) => [((values[i] ?? 0) / most) * reach, d] as const);
  const draw = line<Point>()
    .x((p) => middle + p[0])
    .y((p) => scale.y(p[1]));
  const colour = MEANS[factor.name] ?? "var(--ink)";
  const shape = `${draw(points) ?? ""}L${middle} ${scale.y(depths.at(-1) ?? 0)}L${middle} ${scale.y(depths[0] ?? 0)}Z`;
  return (
    <g data-layer="factor">
      <title>{`${word}: ${factor.sentence}`}</title>
      <path d={shape} fill={colour} fillOpacity="0.2" />
      <path d={draw(points) ?? ""} fill="none" stroke={colour} strokeWidth="2.4" />
      <path
        d={`M${middle} ${scale.surfaceY}V${scale.bedY}`}
        stroke={colour}
        strokeWidth="1.2"
        strokeDasharray="1 4"
      />
      <text
        className="halo"
        x={middle}
        y={scale.surfaceY - 8}
        textAnchor="middle"
        fontSize="13"
        fill={colour}
      >
        {word}: ← away · here →
      </text>
    </g>
  );
}

/** The belief under what is tried, beside the plan's own: an outline without a filling, named at its likeliest depth. */
export function TriedLayer({ plan, place }: { plan: Schemas["PlanAnswer"]; place: string }) {
  const scale = useColumn();
  const belief = plan.belief.places.find((one) => one.place === place);
  if (!belief) return null;
  const most = Math.max(...belief.mass, 1e-12);
  const reach = scale.narrow ? 38 : Math.min(110, scale.width * 0.27);
  const points = belief.depths_m.map((d, i) => [((belief.mass[i] ?? 0) / most) * reach, d] as const);
  const draw = line<Point>()
    .x((p) => scale.cordX + 4 + p[0])
    .y((p) => scale.y(p[1]));
  const peak = belief.depths_m[belief.mass.indexOf(Math.max(...belief.mass))] ?? 0;
  const y = Math.max(scale.surfaceY + 16, Math.min(scale.bedY - 6, scale.y(peak) + 4));
  return (
    <g data-layer="tried">
      <title>{`What if: likeliest at ${depthText(scale.unit, peak)}`}</title>
      <path d={draw(points) ?? ""} fill="none" stroke="var(--take)" strokeWidth="2.5" strokeDasharray="7 4" />
      <text className="halo" x={scale.cordX + 14} y={y} fontSize="13" fontWeight="700" fill="var(--take)">
        what if {depthText(scale.unit, peak)}
      </text>
    </g>
  );
}
