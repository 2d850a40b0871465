/** What hangs on the cord. Each layer draws only what the server sent, at its depth. */
import { area, curveMonotoneY, line } from "d3-shape";
import { useId } from "react";
import type { Schemas } from "../api/client";
import { letter } from "../lib/cord";
import { bandText, depthText, type TemperatureUnit, temperatureText } from "../lib/units";
import { type ColumnScale, useColumn } from "./scale";

type Place = Schemas["PlaceBeliefOut"];
type Water = Schemas["WaterMeaning"];
type CurvePoint = Schemas["CurvePoint"];

/** The belief as a stippled swelling of the cord: dots, because it is not sure. */
export function BeliefLayer({ belief, quiet = false }: { belief: Place; quiet?: boolean }) {
  const scale = useColumn();
  const id = useId();
  const most = Math.max(...belief.mass, 1e-12);
  const reach = scale.narrow ? 38 : Math.min(110, scale.width * 0.27);
  const points = belief.depths_m.map((d, i) => [d, (belief.mass[i] ?? 0) / most] as const);
  const shape = area<readonly [number, number]>()
    .y((p) => scale.y(p[0]))
    .x0(scale.cordX)
    .x1((p) => scale.cordX + 4 + reach * p[1])
    .curve(curveMonotoneY)(points);
  const half = belief.bands.find((band) => band.share === 0.5);
  return (
    <g data-layer="belief">
      <defs>
        <pattern id={id} width="5" height="5" patternUnits="userSpaceOnUse">
          <rect width="5" height="5" fill="var(--water)" fillOpacity={quiet ? 0.1 : 0.16} />
          <circle cx="1.5" cy="1.5" r="1.1" fill="var(--water)" />
        </pattern>
      </defs>
      <path d={shape ?? ""} fill={`url(#${id})`} opacity={quiet ? 0.55 : 1} />
      {half && !scale.narrow && (
        <HalfBand top={half.top_m} bottom={half.bottom_m} x={scale.cordX + reach + 10} named={!quiet} />
      )}
    </g>
  );
}

function HalfBand({ top, bottom, x, named }: { top: number; bottom: number; x: number; named: boolean }) {
  const scale = useColumn();
  const y1 = scale.y(top);
  const y2 = scale.y(bottom);
  return (
    <g>
      <title>{`Half the chance lies between ${bandText(scale.unit, top, bottom)}`}</title>
      <path d={`M${x - 5} ${y1}h5V${y2}h-5`} fill="none" stroke="var(--water)" strokeWidth="2" />
      {named && y2 - y1 > 96 && (
        <text
          className="halo"
          transform={`translate(${x + 15} ${(y1 + y2) / 2}) rotate(-90)`}
          textAnchor="middle"
          fontSize="13"
          fill="var(--water)"
        >
          half the chance
        </text>
      )}
    </g>
  );
}

/** A label's baseline, kept clear of the surface and the bed. */
function labelY(scale: ColumnScale, y: number): number {
  return Math.max(scale.surfaceY + 17, Math.min(scale.bedY - 6, y + 5));
}

interface TemperatureProps {
  curve: NonNullable<Water["temperature"]>;
  read: { depth_m: number; temperature_c: number }[];
  unit: TemperatureUnit;
  thermoclineM: number | null;
}

/** The temperature curve: solid where read, broken where guessed, a ring at each reading. */
export function TemperatureLayer({ curve, read, unit, thermoclineM }: TemperatureProps) {
  const scale = useColumn();
  const values = curve.points.map((p) => p.temperature_c);
  const low = Math.min(...values) - 1;
  const high = Math.max(...values) + 1;
  const x0 = scale.cordX + Math.min(150, scale.width * 0.36);
  const wide = Math.min(110, scale.width * 0.24);
  const x = (t: number) => x0 + (wide * (t - low)) / Math.max(high - low, 4);
  const draw = line<CurvePoint>()
    .y((p) => scale.y(p.depth_m))
    .x((p) => x(p.temperature_c))
    .curve(curveMonotoneY);
  const known = curve.points.filter((p) => p.depth_m <= curve.measured_to_m + 0.13);
  const guessed = curve.points.filter((p) => p.depth_m >= curve.measured_to_m - 0.13);
  let lastLabel = -99;
  return (
    <g data-layer="temperature">
      <path d={draw(known) ?? ""} fill="none" stroke="var(--warm)" strokeWidth="2.5" />
      <path d={draw(guessed) ?? ""} fill="none" stroke="var(--warm)" strokeWidth="2" strokeDasharray="3 5" />
      {thermoclineM !== null && (
        <g>
          <path
            d={`M${scale.cordX + 8} ${scale.y(thermoclineM)}H${scale.width}`}
            stroke="var(--warm)"
            strokeDasharray="10 4 2 4"
          />
          <text
            className="halo"
            x={scale.width - 8}
            y={scale.y(thermoclineM) - 5}
            textAnchor="end"
            fontSize="13"
            fill="var(--warm)"
          >
            thermocline {depthText(scale.unit, thermoclineM)}
          </text>
        </g>
      )}
      {read
        .filter((p) => p.depth_m <= scale.bedM && Number.isFinite(p.temperature_c))
        .map((p) => {
          const y = scale.y(p.depth_m);
          const label = y - lastLabel >= 17;
          if (label) lastLabel = y;
          return (
            <g key={p.depth_m}>
              <circle
                cx={x(p.temperature_c)}
                cy={y}
                r="4.5"
                fill="var(--raised)"
                stroke="var(--warm)"
                strokeWidth="2"
              />
              {label && (
                <text
                  className="halo"
                  x={x(p.temperature_c) + 9}
                  y={labelY(scale, y)}
                  fontSize="13"
                  fill="var(--warm)"
                  fontWeight="600"
                >
                  {temperatureText(unit, p.temperature_c)}
                </text>
              )}
            </g>
          );
        })}
    </g>
  );
}

/** Where the light turns easy on the fish. */
export function LightLayer({ comfortM }: { comfortM: number }) {
  const scale = useColumn();
  if (comfortM < 0.05 || comfortM > scale.bedM) return null;
  const y = scale.y(comfortM);
  return (
    <g data-layer="light">
      <path
        d={`M${scale.cordX + 8} ${y}H${scale.width}`}
        stroke="var(--light)"
        strokeWidth="1.5"
        strokeDasharray="1 5"
        strokeLinecap="round"
      />
      <g stroke="var(--light)" strokeWidth="1.8" transform={`translate(${scale.width - 16} ${y - 11})`}>
        <circle r="3.5" fill="var(--light)" />
        <path d="M-7 0h-2M7 0h2M0-7v-2M0 7v2M5 5l1.4 1.4M-5 5l-1.4 1.4M5-5l1.4-1.4M-5-5l-1.4-1.4" />
      </g>
      <text
        className="halo"
        x={scale.cordX + (scale.narrow ? 10 : 56)}
        y={y - 6}
        fontSize="13"
        fill="var(--light)"
      >
        light eases {depthText(scale.unit, comfortM)}
      </text>
    </g>
  );
}

type SetUp = Schemas["SetUpOut"];

/** Each set-up by its letter: a hanging line to the depth, a bar for how sure that is. */
export function SetUpLayer({
  setUps,
  place,
  chosen,
  onChoose,
}: {
  setUps: SetUp[];
  /** Whose water is drawn: set-ups for another place lie on another bed. */
  place: string | undefined;
  chosen: number;
  onChoose: (i: number) => void;
}) {
  const scale = useColumn();
  const step = Math.min(30, (scale.width * 0.3) / Math.max(setUps.length, 1));
  return (
    <g data-layer="set-ups">
      {setUps.map((setUp, i) => {
        if (place !== undefined && setUp.place !== place) return null;
        const x = scale.width - 18 - step * (setUps.length - 1 - i);
        const y = scale.y(setUp.estimate_m ?? setUp.target_m);
        const active = i === chosen;
        const hung = setUp.float_hang_m !== null;
        return (
          // biome-ignore lint/a11y/noStaticElementInteractions: the list beside the picture does the same by keyboard
          <g key={setUp.key} onClick={() => onChoose(i)} className="cursor-pointer">
            <path
              d={`M${x} ${scale.surfaceY}V${y - 10}`}
              stroke="var(--ink)"
              strokeWidth={active ? 1.6 : 0.8}
              strokeDasharray={hung ? undefined : "5 4"}
            />
            {hung && (
              <ellipse cx={x} cy={scale.surfaceY} rx="5" ry="7" fill="var(--take)" stroke="var(--ink)" />
            )}
            <path
              d={`M${x} ${scale.y(setUp.low_m)}V${scale.y(setUp.high_m)}`}
              stroke="var(--ink)"
              strokeOpacity={active ? 0.9 : 0.45}
              strokeWidth="5"
              strokeDasharray="1.5 2.5"
            />
            <circle
              data-solid=""
              cx={x}
              cy={y}
              r="11"
              fill={active ? "var(--ink)" : "var(--raised)"}
              stroke="var(--ink)"
              strokeWidth="1.5"
            />
            <text
              x={x}
              y={y + 5}
              textAnchor="middle"
              fontSize="14"
              fontWeight="700"
              fill={active ? "var(--raised)" : "var(--ink)"}
            >
              {letter(i)}
            </text>
          </g>
        );
      })}
    </g>
  );
}
