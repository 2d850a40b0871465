/** What happened: hours fished at each depth as bars, takes as marks that differ by shape. */
import type { Schemas } from "../api/client";
import { hoursText } from "../lib/time";
import { depthText } from "../lib/units";
import { useColumn } from "./scale";

type Bin = Schemas["DepthBinOut"];
type Event = Schemas["EventOut"];

const TAKES = ["take", "lost", "landed", "pluck", "follow"];

export function EffortLayer({ bins }: { bins: Bin[] }) {
  const scale = useColumn();
  const most = Math.max(...bins.map((b) => b.hours), 0.1);
  const x0 = scale.cordX + scale.width * 0.36;
  const wide = scale.width * 0.34;
  return (
    <g data-layer="effort">
      <text className="halo" x={x0} y={scale.surfaceY - 14} fontSize="13" fill="var(--weed)">
        hours fished
      </text>
      {bins
        .filter((b) => b.hours > 0 && b.top_m < scale.bedM)
        .map((b) => {
          const y1 = scale.y(b.top_m) + 1;
          const y2 = scale.y(b.bottom_m) - 1;
          const words = `${hoursText(b.hours)}, ${b.takes.count} ${b.takes.count === 1 ? "take" : "takes"}`;
          return (
            <g key={b.top_m}>
              <title>{`${depthText(scale.unit, b.top_m)} to ${depthText(scale.unit, b.bottom_m)}: ${words}`}</title>
              <rect
                x={x0}
                y={y1}
                width={(wide * b.hours) / most}
                height={Math.max(y2 - y1, 1)}
                fill="var(--weed)"
                fillOpacity="0.35"
                stroke="var(--weed)"
              />
              {y2 - y1 >= 15 && (
                <text className="halo" x={x0 + 5} y={(y1 + y2) / 2 + 5} fontSize="13" fill="var(--ink)">
                  {words}
                </text>
              )}
            </g>
          );
        })}
    </g>
  );
}

/** Takes an hour at each depth: a ring at the rate, a broken line over what it may really be. */
export function RateLayer({ bins }: { bins: Bin[] }) {
  const scale = useColumn();
  const x0 = scale.cordX + 18;
  const x1 = scale.cordX + scale.width * 0.34;
  const rates = bins.map((b) => b.takes.per_hour ?? 0);
  const most = Math.max(...rates, 0.2) * 1.6;
  const x = (rate: number) => x0 + (x1 - x0) * Math.min(rate / most, 1);
  return (
    <g data-layer="rates">
      <text className="halo" x={x0} y={scale.surfaceY - 14} fontSize="13" fill="var(--take)">
        takes an hour
      </text>
      {bins.map((b) => {
        const { per_hour: rate, low, high } = b.takes;
        if (rate === null || low === null || high === null || b.top_m >= scale.bedM) return null;
        const y = scale.y((b.top_m + b.bottom_m) / 2);
        return (
          <g key={b.top_m}>
            <title>{`${rate.toFixed(2)} an hour, between ${low.toFixed(2)} and ${high.toFixed(2)}`}</title>
            <path
              d={`M${x(low)} ${y}H${x(high)}`}
              stroke="var(--take)"
              strokeWidth="3"
              strokeDasharray="2 2.5"
            />
            <circle cx={x(rate)} cy={y} r="5" fill="var(--raised)" stroke="var(--take)" strokeWidth="2.5" />
          </g>
        );
      })}
    </g>
  );
}

/** One mark: filled fish for landed, open for lost, ring for a take, tick for a pluck, chevron for a follow. */
export function TakeMark({ kind, x, y }: { kind: string; x: number; y: number }) {
  const fish = `M${x - 9} ${y}c4-6 10-6 13 0c-3 6-9 6-13 0zM${x + 3} ${y}l6-4v8z`;
  if (kind === "landed") return <path d={fish} fill="var(--take)" stroke="var(--take)" />;
  if (kind === "lost") return <path d={fish} fill="var(--raised)" stroke="var(--take)" strokeWidth="1.6" />;
  if (kind === "take")
    return <circle cx={x} cy={y} r="5" fill="none" stroke="var(--take)" strokeWidth="2.4" />;
  if (kind === "pluck")
    return <path d={`M${x - 5} ${y - 5}l5 9l5-9`} fill="none" stroke="var(--take)" strokeWidth="2" />;
  return (
    <path
      d={`M${x - 6} ${y - 4}l5 4l-5 4M${x} ${y - 4}l5 4l-5 4`}
      fill="none"
      stroke="var(--take)"
      strokeWidth="1.8"
    />
  );
}

export function TakesLayer({ events }: { events: Event[] }) {
  const scale = useColumn();
  const shown = events.filter((e) => TAKES.includes(e.kind) && e.depth_m !== null && e.depth_m !== undefined);
  const rows = new Map<number, number>();
  return (
    <g data-layer="takes">
      {shown.map((event) => {
        const y = scale.y(event.depth_m ?? 0);
        const row = Math.round(y / 14);
        const place = rows.get(row) ?? 0;
        rows.set(row, place + 1);
        return (
          <g key={event.id}>
            <title>{`${event.kind} at ${depthText(scale.unit, event.depth_m ?? 0)}`}</title>
            <TakeMark kind={event.kind} x={scale.width - 18 - place * 22} y={y} />
          </g>
        );
      })}
    </g>
  );
}
