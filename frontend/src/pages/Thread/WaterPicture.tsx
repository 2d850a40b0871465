/** The thread in the water: line, leader, flies, their way so far, the bed, and a second rig laid over it. */
import { Column } from "../../column/Column";
import { type ColumnScale, useColumn } from "../../column/scale";
import { letter } from "../../lib/cord";
import { useReader } from "../../lib/session";
import { type DepthUnit, depthText } from "../../lib/units";
import { type Answer, bedOf, deepest, fliesAt, type Point, type RigDoc, shapeAt, wayOf } from "./rig";
import { words } from "./strings";

interface Run {
  rig: RigDoc;
  answer: Answer;
}

/** Distance to x on the picture: the rod tip stands just right of the cord. */
function across(scale: ColumnScale, farM: number): (x: number) => number {
  const left = scale.cordX + 34;
  const right = scale.width - 22;
  return (x) => left + ((right - left) * Math.max(x, -0.5)) / Math.max(farM, 1);
}

function path(points: Point[], x: (v: number) => number, y: (v: number) => number): string {
  return points.map(([px, pz], i) => `${i ? "L" : "M"}${x(px).toFixed(1)} ${y(pz).toFixed(1)}`).join("");
}

function Bed({ rig, farM }: { rig: RigDoc; farM: number }) {
  const scale = useColumn();
  const x = across(scale, farM);
  const bed = bedOf(rig);
  if (bed.length < 2) return null;
  const last = bed[bed.length - 1] ?? [0, 0];
  const edge: Point[] = [[-20, bed[0]?.[1] ?? 0], ...bed, [farM * 1.2, last[1]]];
  const line = edge
    .map(([a, z], i) => `${i ? "L" : "M"}${i ? x(a) : scale.cordX - 60} ${scale.y(z)}`)
    .join("");
  return (
    <path
      data-layer="bed"
      d={`${line}V${scale.height}H0Z`}
      fill="var(--bed)"
      stroke="var(--ink)"
      strokeWidth="2"
    />
  );
}

function Distances({ farM, unit }: { farM: number; unit: DepthUnit }) {
  const scale = useColumn();
  const x = across(scale, farM);
  const step = unit === "m" ? (farM > 14 ? 5 : 2) : (farM > 14 ? 20 : 10) * 0.3048;
  const marks = [];
  for (let d = step; d <= farM; d += step) marks.push(d);
  return (
    <g aria-hidden="true" fontSize="13" fill="var(--soft)">
      {marks.map((d) => (
        <text key={d} x={x(d)} y={scale.surfaceY - 14} textAnchor="middle">
          {depthText(unit, d, 0)}
        </text>
      ))}
    </g>
  );
}

function Rigged({ run, t, farM, other }: { run: Run; t: number; farM: number; other: boolean }) {
  const scale = useColumn();
  const x = across(scale, farM);
  const { answer, rig } = run;
  const colour = other ? "var(--soft)" : "var(--ink)";
  const now = fliesAt(answer, t);
  const floated = rig.float && answer.line_track[0];
  const shape = shapeAt(answer, t);
  const top = shape[0];
  return (
    <g data-layer={other ? "other-rig" : "rig"}>
      {answer.flies.map((fly, n) => {
        const { done, ahead } = wayOf(fly, t);
        return (
          <g key={fly.name + String(n)} fill="none" stroke={other ? "var(--soft)" : "var(--take)"}>
            <path d={path(ahead, x, scale.y)} strokeWidth="1.2" strokeDasharray="2 5" />
            <path
              d={path(done, x, scale.y)}
              strokeWidth="2"
              strokeDasharray={other ? "7 4" : undefined}
              opacity="0.75"
            />
          </g>
        );
      })}
      <path
        d={path(shape, x, scale.y)}
        fill="none"
        stroke={colour}
        strokeWidth={other ? 2 : 2.6}
        strokeDasharray={other ? "9 4" : undefined}
        strokeLinejoin="round"
      />
      {floated && top && (
        <ellipse
          cx={x(top[0])}
          cy={scale.y(0)}
          rx="7"
          ry="9"
          fill="var(--take)"
          stroke="var(--ink)"
          strokeWidth="1.5"
        />
      )}
      {now.map((fly, n) => {
        const cx = x(fly.x);
        const cy = scale.y(fly.depth);
        const point = n === now.length - 1;
        return (
          <g key={fly.name + String(n)}>
            {fly.high - fly.low > 0.02 && (
              <path
                d={`M${cx} ${scale.y(fly.low)}V${scale.y(fly.high)}`}
                stroke={colour}
                strokeWidth="7"
                strokeDasharray="1.5 2.5"
                opacity="0.8"
              />
            )}
            <circle
              cx={cx}
              cy={cy}
              r={point ? 9 : 7}
              fill={other ? "var(--raised)" : "var(--take)"}
              stroke={colour}
              strokeWidth="1.5"
            />
            <text
              x={cx}
              y={cy + 4.5}
              textAnchor="middle"
              fontSize="12"
              fontWeight="700"
              fill={other ? "var(--ink)" : "var(--raised)"}
            >
              {letter(n)}
            </text>
          </g>
        );
      })}
    </g>
  );
}

interface Props {
  main: Run;
  other: Run | null;
  t: number;
}

export function WaterPicture({ main, other, t }: Props) {
  const { settings } = useReader();
  const unit = settings.depth_unit;
  const farM = Math.max(main.rig.cast_m, other?.rig.cast_m ?? 0, 3) * 1.04;
  const bedM = Math.max(deepest(main.rig), other ? deepest(other.rig) : 0);
  return (
    <Column bedM={bedM} unit={unit} ripple="ripple" summary={words.summary} className="h-full">
      <Bed rig={main.rig} farM={farM} />
      <Distances farM={farM} unit={unit} />
      {other && <Rigged run={other} t={t} farM={farM} other />}
      <Rigged run={main} t={t} farM={farM} other={false} />
    </Column>
  );
}
