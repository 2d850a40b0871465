/** The surface temperature through the year: the curve with its doubt, and the readings on it. */
import { area, line } from "d3-shape";
import type { Schemas } from "../../api/client";
import { useReader } from "../../lib/session";
import { temperatureText } from "../../lib/units";
import { words } from "./strings";

const WIDE = 520;
const HIGH = 170;

export function YearCurve({
  curve,
  profiles,
}: {
  curve: Schemas["YearOut"];
  profiles: Schemas["SeasonProfileOut"][];
}) {
  const { settings } = useReader();
  const top = Math.max(...curve.surface_c.map((t, i) => t + (curve.spread_c[i] ?? 0))) + 1;
  const x = (week: number) => 34 + ((WIDE - 40) * week) / 52;
  const y = (t: number) => HIGH - 22 - ((HIGH - 34) * Math.max(t, 0)) / top;
  const weeks = curve.surface_c.map((t, i) => [i + 0.5, t, curve.spread_c[i] ?? 0] as const);
  const band = area<(typeof weeks)[number]>()
    .x((w) => x(w[0]))
    .y0((w) => y(w[1] - w[2]))
    .y1((w) => y(w[1] + w[2]))(weeks);
  const middle = line<(typeof weeks)[number]>()
    .x((w) => x(w[0]))
    .y((w) => y(w[1]))(weeks);
  const low = temperatureText(settings.temperature_unit, Math.min(...curve.surface_c), 0);
  const high = temperatureText(settings.temperature_unit, Math.max(...curve.surface_c), 0);
  const marks = [0, 5, 10, 15, 20].filter((t) => t < top);
  return (
    <figure>
      <svg
        viewBox={`0 0 ${WIDE} ${HIGH}`}
        className="w-full max-w-2xl"
        role="img"
        aria-label={words.curveSays(low, high)}
      >
        {marks.map((t) => (
          <g key={t}>
            <path d={`M34 ${y(t)}H${WIDE}`} stroke="var(--rule)" />
            <text x="30" y={y(t) + 4} textAnchor="end" fontSize="12" fill="var(--soft)">
              {temperatureText(settings.temperature_unit, t, 0)}
            </text>
          </g>
        ))}
        {words.months.map((month, i) => (
          <text
            key={i}
            x={x((i + 0.5) * (52 / 12))}
            y={HIGH - 5}
            textAnchor="middle"
            fontSize="12"
            fill="var(--soft)"
          >
            {month}
          </text>
        ))}
        <path d={band ?? ""} fill="var(--warm)" fillOpacity="0.16" />
        <path
          d={middle ?? ""}
          fill="none"
          stroke="var(--warm)"
          strokeWidth="2.5"
          strokeDasharray={curve.readings < 3 ? "6 5" : undefined}
        />
        {profiles.map((p) => {
          const first = p.points[0];
          if (!first || first.depth_m > 1) return null;
          const when = new Date(p.taken_at);
          const day = (when.getTime() - Date.UTC(when.getUTCFullYear(), 0, 1)) / 86_400_000;
          return (
            <circle
              key={p.id}
              cx={x(day / 7)}
              cy={y(first.temperature_c)}
              r="4"
              fill="var(--raised)"
              stroke="var(--warm)"
              strokeWidth="2"
            />
          );
        })}
      </svg>
      <figcaption className="text-[0.92rem] text-soft">
        {curve.sentence} {words.curveKey}
      </figcaption>
    </figure>
  );
}
