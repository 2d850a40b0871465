/** What the water itself is, on the cord: oxygen, water open to the fish, food, profiles of the year. */
import { area, curveMonotoneY, line } from "d3-shape";
import { useId } from "react";
import type { Schemas } from "../api/client";
import { bandText, depthText } from "../lib/units";
import { useColumn } from "./scale";

type Curves = Schemas["Curves"];
type Species = Schemas["SpeciesOut"];
type Pair = readonly [number, number];

const FREE_MG_L = 6;
const MOST_MG_L = 15;

/** Oxygen: a line with its doubt as hatching; solid where measured, broken where reckoned; the free limit as a tick line. */
export function OxygenLayer({ curves }: { curves: Curves }) {
  const scale = useColumn();
  const id = useId();
  const { depths_m: z, oxygen_mg_l: mid, oxygen_low_mg_l: low, oxygen_high_mg_l: high } = curves;
  if (!mid || !low || !high) return null;
  const x0 = scale.cordX + scale.width * 0.1;
  const wide = scale.width * 0.28;
  const x = (v: number) => x0 + (wide * v) / MOST_MG_L;
  const rows = z.map((d, i) => [d, i] as const).filter((_, i) => i % 3 === 0 || i === z.length - 1);
  const band = area<Pair>()
    .y((r) => scale.y(r[0]))
    .x0((r) => x(low[r[1]] ?? 0))
    .x1((r) => x(high[r[1]] ?? 0))(rows);
  const curve = line<Pair>()
    .y((r) => scale.y(r[0]))
    .x((r) => x(mid[r[1]] ?? 0))(rows);
  const measured = curves.oxygen_source?.includes("measured");
  const foot = scale.bedY - 8;
  return (
    <g data-layer="oxygen">
      <title>{`Oxygen from ${Math.min(...mid).toFixed(1)} to ${Math.max(...mid).toFixed(1)} mg/L`}</title>
      <defs>
        <pattern id={id} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0v6" stroke="var(--water)" strokeOpacity="0.45" strokeWidth="1.4" />
        </pattern>
      </defs>
      <path d={band ?? ""} fill={`url(#${id})`} />
      <path
        d={curve ?? ""}
        fill="none"
        stroke="var(--water)"
        strokeWidth="2.5"
        strokeDasharray={measured ? undefined : "6 4"}
      />
      <path
        d={`M${x(FREE_MG_L)} ${scale.surfaceY}V${scale.bedY}`}
        stroke="var(--water)"
        strokeWidth="1"
        strokeDasharray="1 5"
      />
      <text className="halo" x={x(FREE_MG_L) + 4} y={foot} fontSize="12" fill="var(--water)">
        6 mg/L
      </text>
      <text
        className="halo"
        x={x(mid[0] ?? 0) - 4}
        y={scale.surfaceY + 48}
        fontSize="13"
        fill="var(--water)"
        textAnchor="end"
      >
        oxygen
      </text>
    </g>
  );
}

/** The water open to a species: a bracket along the cord, its end wavering where oxygen is a guess. */
export function OpenLayer({ species, words }: { species: Species[]; words: Record<string, string> }) {
  const scale = useColumn();
  return (
    <g data-layer="open">
      {species.map((one, i) => {
        if (one.open_top_m === null || one.open_bottom_m === null) return null;
        const x = scale.cordX + 15 + i * 20;
        const y1 = scale.y(one.open_top_m) + 2;
        const y2 = scale.y(one.open_bottom_m) - 2;
        const unsure = (one.bottom_high_m ?? 0) - (one.bottom_low_m ?? 0) > 0.2;
        return (
          <g key={one.species}>
            <title>{`${words[one.species]}: ${bandText(scale.unit, one.open_top_m, one.open_bottom_m)}`}</title>
            <path
              d={`M${x - 4} ${y1}h8M${x} ${y1}V${y2}M${x - 4} ${y2}h8`}
              stroke="var(--take)"
              strokeWidth="2.2"
              fill="none"
            />
            {unsure && (
              <path
                d={`M${x} ${scale.y(one.bottom_low_m ?? 0)}V${scale.y(one.bottom_high_m ?? 0)}`}
                stroke="var(--take)"
                strokeWidth="5"
                strokeDasharray="1.5 3"
              />
            )}
            {one.liked_top_m !== null && one.liked_bottom_m !== null && (
              <path
                d={`M${x} ${scale.y(one.liked_top_m) + 3}V${scale.y(one.liked_bottom_m) - 3}`}
                stroke="var(--take)"
                strokeWidth="6"
                strokeLinecap="round"
              />
            )}
            <text
              className="halo"
              transform={`translate(${x + 5} ${y2 - 10}) rotate(-90)`}
              fontSize="12"
              fill="var(--take)"
            >
              {words[one.species]}
            </text>
          </g>
        );
      })}
    </g>
  );
}

/** The steep part of the profile as a shaded band, its doubt told by the dash. */
export function SteepLayer({ layers }: { layers: Schemas["LayersOut"] }) {
  const scale = useColumn();
  const parts = [layers.main, layers.skin].filter((p) => p !== null);
  return (
    <g data-layer="steep">
      {parts.map((part) => (
        <g key={part.kind}>
          <title>{`${part.kind}: ${bandText(scale.unit, part.top_m, part.bottom_m)}`}</title>
          <rect
            x={scale.cordX + 6}
            y={scale.y(part.top_m)}
            width={scale.width - scale.cordX - 6}
            height={Math.max(scale.y(part.bottom_m) - scale.y(part.top_m), 2)}
            fill="var(--warm)"
            fillOpacity={part.kind === "seasonal" ? 0.13 : 0.07}
            stroke="var(--warm)"
            strokeOpacity="0.5"
            strokeDasharray="2 5"
          />
        </g>
      ))}
    </g>
  );
}

/** Food over depth: a band of weed-coloured ticks, denser where there is more of it. */
export function FoodLayer({ density, depths }: { density: number[]; depths: number[] }) {
  const scale = useColumn();
  const most = Math.max(...density, 1e-9);
  const x1 = scale.width - 10;
  const reach = Math.min(90, scale.width * 0.22);
  const rows = depths.map((d, i) => [d, (density[i] ?? 0) / most] as const).filter(([d]) => d <= scale.bedM);
  const shape = area<Pair>()
    .y((r) => scale.y(r[0]))
    .x0(x1)
    .x1((r) => x1 - reach * r[1])
    .curve(curveMonotoneY)(rows);
  const best = rows.reduce((a, b) => (b[1] > a[1] ? b : a), rows[0] ?? [0, 0]);
  return (
    <g data-layer="food">
      <title>{`Most food at about ${depthText(scale.unit, best[0])}`}</title>
      <path d={shape ?? ""} fill="var(--weed)" fillOpacity="0.28" stroke="var(--weed)" strokeWidth="1.5" />
      <text
        className="halo"
        x={x1 - 4}
        y={Math.max(scale.surfaceY + 15, Math.min(scale.y(best[0]) + 5, scale.bedY - 6))}
        textAnchor="end"
        fontSize="13"
        fontWeight="600"
        fill="var(--weed)"
      >
        food
      </text>
    </g>
  );
}
