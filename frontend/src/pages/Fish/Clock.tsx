/** The countdown clock: large for a wet phone, running from the moment the line landed. */
import { useEffect, useState } from "react";
import type { Schemas } from "../../api/client";
import { useColumn } from "../../column/scale";
import { nowMs } from "../../lib/clock";
import { bottomAt, type DepthNow, depthAt } from "../../lib/counted";
import { useReader } from "../../lib/session";
import { secondsText } from "../../lib/time";
import { bandText, depthText } from "../../lib/units";
import type { Spell } from "../../offline/overlay";
import { Button } from "../../ui/controls";
import { loud, setLoud, useSignal } from "./signal";
import { words } from "./strings";

/** Seconds since the cast, four times a second while it runs; null when no cast is out. */
export function useElapsed(castAt: number | null): number | null {
  const [, tick] = useState(0);
  useEffect(() => {
    if (castAt === null) return;
    const timer = setInterval(() => tick((n) => n + 1), 200);
    return () => clearInterval(timer);
  }, [castAt]);
  return castAt === null ? null : Math.max(0, (nowMs() - castAt) / 1000);
}

/** Hold the screen awake while a cast is out, where the phone allows it. */
export function useAwake(on: boolean) {
  useEffect(() => {
    if (!on || !("wakeLock" in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    navigator.wakeLock.request("screen").then(
      (got) => {
        lock = got;
      },
      () => undefined,
    );
    return () => void lock?.release();
  }, [on]);
}

export function nowDepth(
  setUp: Schemas["SetUpOut"] | undefined,
  spell: Spell,
  elapsed: number | null,
): DepthNow {
  const held = {
    depth: spell.depth_m ?? null,
    low: spell.low_m ?? null,
    high: spell.high_m ?? null,
    touching: false,
  };
  if (!setUp || spell.count_s === null || spell.count_s === undefined) return held;
  if (elapsed === null) return { depth: 0, low: 0, high: 0, touching: false };
  return depthAt(setUp.sink_table, elapsed);
}

interface Props {
  setUp: Schemas["SetUpOut"] | undefined;
  spell: Spell;
  elapsed: number | null;
  onCast: () => void;
}

function Words({ spell, at, elapsed }: { spell: Spell; at: DepthNow; elapsed: number | null }) {
  const { settings, say } = useReader();
  const unit = settings.depth_unit;
  const counted = spell.count_s !== null && spell.count_s !== undefined;
  if (counted && elapsed === null) return <p>{words.ready}</p>;
  const band = at.low !== null && at.high !== null ? bandText(unit, at.low, at.high) : "";
  const apart = depthText(unit, at.low ?? 0) !== depthText(unit, at.high ?? 0);
  return (
    <div>
      <p className="text-[1.35rem] font-bold" data-testid="fly-depth">
        {at.depth === null ? words.flyBetween(band) : words.flyAt(depthText(unit, at.depth))}
      </p>
      <p className="text-soft">
        {counted && at.depth !== null && apart && words.between(band)}
        {spell.method === "float" && say(words.hanging)}
        {spell.method === "dry" && words.film}
      </p>
      {at.touching && <p className="font-bold text-warm">{words.touching}</p>}
    </div>
  );
}

/** When the bed would be reached, said before it happens. */
function Ahead({ setUp }: { setUp: Schemas["SetUpOut"] }) {
  const bottom = bottomAt(setUp.sink_table);
  return (
    <p className="text-soft" data-testid="ahead">
      {bottom !== null ? words.bottomAfter(bottom) : words.noBottom}
    </p>
  );
}

export function Clock({ setUp, spell, elapsed, onCast }: Props) {
  const [heard, setHeard] = useState(loud);
  const count = spell.count_s ?? null;
  const at = nowDepth(setUp, spell, elapsed);
  const reached = count !== null && elapsed !== null && elapsed >= count;
  const touching = elapsed !== null && at.touching;
  useSignal(reached, "deep");
  useSignal(touching, "bottom");
  const hush = () => {
    setHeard(!heard);
    setLoud(!heard);
  };
  return (
    <section aria-label={words.countdown} className="space-y-1">
      {count !== null && (
        <div className="flex items-baseline gap-1">
          <p className="flex min-w-0 items-baseline gap-1" role="timer">
            <span
              className={`text-[4rem] leading-none font-bold ${touching ? "text-warm" : reached ? "text-take" : ""}`}
            >
              {secondsText(elapsed ?? 0)}
            </span>
            <span className="text-[0.92rem] whitespace-nowrap text-soft">{words.until(count)}</span>
          </p>
          <button
            type="button"
            aria-pressed={heard}
            aria-label={heard ? words.soundOn : words.soundOff}
            onClick={hush}
            className={`ml-auto size-11 shrink-0 rounded-md border-2 border-edge text-xl ${heard ? "" : "line-through opacity-70"}`}
          >
            ♪
          </button>
        </div>
      )}
      {reached && !touching && (
        <p role="status" className="text-[1.35rem] font-bold text-take">
          {words.now}
        </p>
      )}
      <Words spell={spell} at={at} elapsed={elapsed} />
      {setUp && count !== null && <Ahead setUp={setUp} />}
      {count !== null && (
        <Button look="main" className="min-h-14 w-full text-lg" onClick={onCast}>
          {elapsed === null ? words.cast : words.again}
        </Button>
      )}
    </section>
  );
}

/** The fly going down the cord, with its band, and the depth it is meant for. */
export function FlyLayer({ at, targetM }: { at: DepthNow; targetM: number | null }) {
  const scale = useColumn();
  const x = scale.cordX;
  const middle = at.depth ?? (at.low !== null && at.high !== null ? (at.low + at.high) / 2 : 0);
  const y = scale.y(middle);
  return (
    <g data-layer="fly" aria-hidden="true">
      {targetM !== null && (
        <path
          d={`M${x - 10} ${scale.y(targetM)}H${scale.width}`}
          stroke="var(--take)"
          strokeWidth="2.5"
          strokeDasharray="7 4"
        />
      )}
      {at.low !== null && at.high !== null && (
        <path
          d={`M${x + 20} ${scale.y(at.low)}V${scale.y(at.high)}`}
          stroke="var(--ink)"
          strokeWidth="6"
          strokeDasharray="1.5 2.5"
        />
      )}
      <g transform={`translate(${x + 20} ${y})`}>
        <path
          d="M0-10c6 6 8 9 8 13a8 8 0 0 1-16 0c0-4 2-7 8-13z"
          fill="var(--take)"
          stroke="var(--raised)"
          strokeWidth="1.5"
        />
      </g>
    </g>
  );
}
