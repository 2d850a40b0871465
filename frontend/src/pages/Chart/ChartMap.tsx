/** The small chart: shore and islands, wind and the shore it blows onto, places, soundings, recorded lines. */
import { type RefObject, useId, useLayoutEffect, useRef, useState } from "react";
import { useReader } from "../../lib/session";
import { depthText, depthTo, distanceText, FOOT_M, pointOf } from "../../lib/units";
import { type Projection, project, roundLength } from "./projection";
import { words } from "./strings";
import type { Chart } from "./useChart";

/** The picture is drawn at the width it is shown at, so that its figures stay readable on the phone. */
function useWide(): [RefObject<HTMLDivElement | null>, number] {
  const box = useRef<HTMLDivElement>(null);
  const [wide, setWide] = useState(0);
  useLayoutEffect(() => {
    const element = box.current;
    if (!element) return;
    const measure = () => setWide(element.clientWidth);
    measure();
    const watcher = new ResizeObserver(measure);
    watcher.observe(element);
    return () => watcher.disconnect();
  }, []);
  return [box, wide];
}

interface Props {
  chart: Chart;
  name: string;
  windFrom: number | null;
  ringM: number;
  lineId: string | null;
  mark: [number, number] | null;
  onMark: (position: [number, number]) => void;
}

function shorePath(at: Projection, rings: Chart["rings"]): string {
  return rings
    .map((ring) => `M${ring.map((p) => `${at.x(p).toFixed(1)} ${at.y(p).toFixed(1)}`).join("L")}Z`)
    .join("");
}

/** The shores by the wind: thick and ticked where it blows on, thin and broken where it blows off. */
function Shores({ chart, at }: { chart: Chart; at: Projection }) {
  return (
    <g fill="none" strokeLinecap="round">
      {chart.stretches.map((s, i) => {
        const d = `M${at.x(s.start)} ${at.y(s.start)}L${at.x(s.end)} ${at.y(s.end)}`;
        if (s.onto === null) return <path key={i} d={d} stroke="var(--ink)" strokeWidth="2" />;
        if (s.onto > 0.35) return <path key={i} d={d} stroke="var(--ink)" strokeWidth={3 + 5 * s.onto} />;
        return (
          <path
            key={i}
            d={d}
            stroke="var(--ink)"
            strokeWidth="1.4"
            strokeDasharray={s.onto < -0.35 ? "3 4" : undefined}
          />
        );
      })}
    </g>
  );
}

/** Which soundings have room for their figure: the first of those that would run into each other. */
function withRoom(chart: Chart, at: Projection): Set<string> {
  const taken: [number, number][] = chart.places.flatMap((p) =>
    p.position ? [[at.x(p.position) + 20, at.y(p.position) - 8] as [number, number]] : [],
  );
  const found = new Set<string>();
  for (const s of chart.soundings) {
    const p = [s.longitude_deg ?? 0, s.latitude_deg ?? 0];
    const here: [number, number] = [at.x(p), at.y(p)];
    if (taken.some(([x, y]) => Math.abs(x - here[0]) < 36 && Math.abs(y - here[1]) < 14)) continue;
    taken.push(here);
    found.add(s.id);
  }
  return found;
}

function Soundings({ chart, at, ringM }: { chart: Chart; at: Projection; ringM: number }) {
  const { settings } = useReader();
  const room = withRoom(chart, at);
  return (
    <g fontSize="12">
      {chart.soundings.map((s) => {
        if (s.longitude_deg === null || s.latitude_deg === null) return null;
        const p = [s.longitude_deg, s.latitude_deg];
        const deeper = s.depth_today_m >= ringM;
        return (
          <g key={s.id}>
            <title>{depthText(settings.depth_unit, s.depth_today_m)}</title>
            <circle
              cx={at.x(p)}
              cy={at.y(p)}
              r="3.5"
              fill={deeper ? "var(--water)" : "var(--raised)"}
              stroke="var(--water)"
              strokeWidth="1.5"
            />
            {room.has(s.id) && (
              <text className="halo" x={at.x(p) + 5} y={at.y(p) + 4} fill="var(--water)">
                {depthTo(settings.depth_unit, s.depth_today_m).toFixed(settings.depth_unit === "m" ? 1 : 0)}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

function Lines({ chart, at, lineId }: { chart: Chart; at: Projection; lineId: string | null }) {
  return (
    <g>
      {chart.lines.map((line) => (
        <g key={line.id}>
          <path
            d={`M${line.points
              .filter((p) => !p.wild)
              .map((p) => `${at.x(p.position).toFixed(1)} ${at.y(p.position).toFixed(1)}`)
              .join("L")}`}
            fill="none"
            stroke="var(--take)"
            strokeWidth={line.id === lineId ? 3.5 : 1.5}
            strokeDasharray={line.id === lineId ? undefined : "4 3"}
          />
          {line.ledges.map((e, i) => (
            <path
              key={i}
              d={`M${at.x(e.position) - 6} ${at.y(e.position)}l6-6 6 6-6 6z`}
              fill="var(--raised)"
              stroke="var(--take)"
              strokeWidth="2"
            />
          ))}
        </g>
      ))}
    </g>
  );
}

function Places({ chart, at }: { chart: Chart; at: Projection }) {
  return (
    <g fontSize="14" fontWeight="700">
      {chart.places.map((p) => {
        if (!p.position) return null;
        const right = at.x(p.position) > at.width * 0.6;
        return (
          <g key={p.name}>
            <path d={`M${at.x(p.position)} ${at.y(p.position)}l-6-13h12z`} fill="var(--ink)" />
            <text
              className="halo"
              x={at.x(p.position) + (right ? -9 : 9)}
              y={at.y(p.position) - 4}
              textAnchor={right ? "end" : "start"}
              fill="var(--ink)"
            >
              {p.name}
            </text>
          </g>
        );
      })}
    </g>
  );
}

function WindArrow({ fromDeg }: { fromDeg: number }) {
  return (
    <g transform="translate(48 38)">
      <g transform={`rotate(${fromDeg + 180})`} stroke="var(--ink)" fill="none" strokeWidth="3">
        <path d="M0 26V-26M-9-14L0-27L9-14" />
        <path d="M-5 26h10M-5 18h10" strokeWidth="2" />
      </g>
      <text y="50" textAnchor="middle" fontSize="14" fontWeight="700" fill="var(--ink)">
        {pointOf(fromDeg)}
      </text>
    </g>
  );
}

function ScaleBar({ at }: { at: Projection }) {
  const { settings } = useReader();
  const wanted = 0.25 * at.width * at.metres;
  const metres = settings.depth_unit === "m" ? roundLength(wanted) : roundLength(wanted / FOOT_M) * FOOT_M;
  const long = metres / at.metres;
  const y = at.height - 12;
  return (
    <g stroke="var(--ink)" strokeWidth="2">
      <path d={`M${at.width - 20 - long} ${y - 6}v6h${long}v-6`} fill="none" />
      <text
        x={at.width - 20 - long / 2}
        y={y - 8}
        textAnchor="middle"
        fontSize="13"
        fill="var(--ink)"
        stroke="none"
      >
        {distanceText(settings.depth_unit, metres)}
      </text>
      <text x={at.width - 26} y="22" textAnchor="middle" fontSize="13" fill="var(--ink)" stroke="none">
        N
      </text>
      <path d={`M${at.width - 26} 52v-24m-5 8l5-9 5 9`} fill="none" />
    </g>
  );
}

export function ChartMap(props: Props) {
  const [box, wide] = useWide();
  return <div ref={box}>{wide > 0 && <Picture {...props} wide={wide} />}</div>;
}

function Picture({ chart, name, windFrom, ringM, lineId, mark, onMark, wide }: Props & { wide: number }) {
  const id = useId();
  const points = [
    ...chart.rings.flat(),
    ...(chart.rings.length > 0 ? [] : chart.lines.flatMap((l) => l.points.map((p) => p.position))),
    ...(chart.rings.length > 0 ? [] : chart.places.flatMap((p) => (p.position ? [p.position] : []))),
  ];
  const small = wide < 500;
  const at = project(points, wide, Math.max(0.78 * wide, 300), small ? 16 : 34, small ? 96 : 34);
  if (!at) return null;
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: a place can be chosen by keyboard in the form below
    <svg
      viewBox={`0 0 ${wide} ${at.height}`}
      width={wide}
      height={at.height}
      className="bg-sky outline-2 outline-ink"
      role="img"
      aria-label={words.chartLabel(name)}
      onClick={(event) => {
        const box = event.currentTarget.getBoundingClientRect();
        onMark(at.back(event.clientX - box.left, event.clientY - box.top));
      }}
    >
      <defs>
        <pattern id={id} width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(35)">
          <rect width="9" height="9" fill="var(--bed)" fillOpacity="0.45" />
          <path d="M0 0v9" stroke="var(--ink)" strokeOpacity="0.16" strokeWidth="1.2" />
        </pattern>
      </defs>
      <rect width={wide} height={at.height} fill={`url(#${id})`} />
      <path d={shorePath(at, chart.rings)} fill="var(--water-top)" fillRule="evenodd" />
      <Shores chart={chart} at={at} />
      <Soundings chart={chart} at={at} ringM={ringM} />
      <Lines chart={chart} at={at} lineId={lineId} />
      <Places chart={chart} at={at} />
      {mark && (
        <g stroke="var(--take)" strokeWidth="3">
          <path d={`M${at.x(mark) - 9} ${at.y(mark)}h18M${at.x(mark)} ${at.y(mark) - 9}v18`} />
        </g>
      )}
      {windFrom !== null && <WindArrow fromDeg={windFrom} />}
      <ScaleBar at={at} />
    </svg>
  );
}
