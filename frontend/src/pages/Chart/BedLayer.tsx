/** The bed on the cord: along a recorded line, or as the soundings there are, each with its doubt. */
import { area, line } from "d3-shape";
import { useColumn } from "../../column/scale";
import { depthText } from "../../lib/units";
import { words } from "./strings";
import type { Chart } from "./useChart";

type Line = Chart["lines"][number];
type Point = Line["points"][number];

export function BedLine({ row }: { row: Line }) {
  const scale = useColumn();
  const good = row.points.filter((p) => !p.wild);
  const long = Math.max(good.at(-1)?.along_m ?? 1, 1);
  const x0 = scale.cordX + 12;
  const x = (along: number) => x0 + ((scale.width - x0 - 8) * along) / long;
  const ground = area<Point>()
    .x((p) => x(p.along_m))
    .y0(scale.bedY)
    .y1((p) => scale.y(p.depth_m))(good);
  const top = line<Point>()
    .x((p) => x(p.along_m))
    .y((p) => scale.y(p.depth_m))(good);
  return (
    <g data-layer="bed">
      <path d={ground ?? ""} fill="var(--bed)" />
      <path d={top ?? ""} fill="none" stroke="var(--ink)" strokeWidth="2" />
      {row.points
        .filter((p) => p.wild)
        .map((p) => (
          <path
            key={p.along_m}
            d={`M${x(p.along_m) - 3} ${scale.y(p.depth_m) - 3}l6 6m0-6l-6 6`}
            stroke="var(--ink)"
            strokeOpacity="0.55"
            strokeWidth="1.5"
          />
        ))}
      {row.ledges.map((e, i) => {
        const at = row.points.find((p) => p.position[0] === e.position[0] && p.position[1] === e.position[1]);
        if (!at) return null;
        const px = x(at.along_m);
        return (
          <g key={i}>
            <path
              d={`M${px} ${scale.y(e.upper_m)}V${scale.y(e.lower_m)}`}
              stroke="var(--take)"
              strokeWidth="4"
            />
            <text
              className="halo"
              x={px + 8}
              y={scale.y(e.upper_m) - 5}
              fontSize="13"
              fontWeight="700"
              fill="var(--take)"
            >
              {depthText(scale.unit, e.upper_m)}–{depthText(scale.unit, e.lower_m)}
            </text>
          </g>
        );
      })}
    </g>
  );
}

export function SoundingMarks({ chart }: { chart: Chart }) {
  const scale = useColumn();
  const shown = chart.soundings.filter((s) => s.place);
  return (
    <g data-layer="soundings">
      {shown.map((s, i) => {
        const x = scale.cordX + 30 + (i % 4) * ((scale.width - scale.cordX - 60) / 4);
        const y = scale.y(s.depth_today_m);
        return (
          <g key={s.id}>
            <path
              d={`M${x} ${scale.y(Math.max(0, s.depth_today_m - s.doubt_m))}V${scale.y(s.depth_today_m + s.doubt_m)}`}
              stroke="var(--ink)"
              strokeWidth="4"
              strokeDasharray="1.5 2.5"
            />
            <circle cx={x} cy={y} r="4.5" fill="var(--raised)" stroke="var(--ink)" strokeWidth="2" />
            <text className="halo" x={x + 8} y={y + 4} fontSize="12" fill="var(--ink)">
              {s.place}, {words.methodNames[s.method]}
            </text>
          </g>
        );
      })}
    </g>
  );
}
