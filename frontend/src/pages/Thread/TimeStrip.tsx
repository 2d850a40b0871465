/** Time through the cast: drag it, step it with the keys, or let it play at eight times the pace. */
import { useEffect, useRef, useState } from "react";
import { useReader } from "../../lib/session";
import { secondsText } from "../../lib/time";
import { bandText, depthText } from "../../lib/units";
import { Button } from "../../ui/controls";
import { type Answer, fliesAt, phaseAt, type RigDoc } from "./rig";
import { words } from "./strings";

const QUICKER = 8;

export function usePlay(end: number) {
  const [t, setT] = useState(0);
  const [playing, setPlaying] = useState(false);
  const last = useRef(0);
  useEffect(() => {
    if (!playing) return;
    last.current = performance.now();
    let frame = requestAnimationFrame(function step(now) {
      const by = ((now - last.current) / 1000) * QUICKER;
      last.current = now;
      setT((old) => {
        if (old + by >= end) setPlaying(false);
        return Math.min(end, old + by);
      });
      frame = requestAnimationFrame(step);
    });
    return () => cancelAnimationFrame(frame);
  }, [playing, end]);
  const toggle = () => {
    if (!playing && t >= end - 0.1) setT(0);
    setPlaying(!playing);
  };
  return { t: Math.min(t, end), setT, playing, toggle };
}

interface Props {
  answer: Answer;
  rig: RigDoc;
  banded: boolean;
  play: ReturnType<typeof usePlay>;
}

export function TimeStrip({ answer, rig, banded, play }: Props) {
  const { settings } = useReader();
  const unit = settings.depth_unit;
  const phase = words.phases[phaseAt(answer, rig, play.t)];
  const share = (s: number) => `${(100 * s) / Math.max(answer.end_s, 0.1)}%`;
  return (
    <div className="no-print space-y-1 border-b-2 border-ink bg-paper px-3 pt-2 pb-2">
      <div className="flex flex-wrap items-center gap-x-3">
        <Button onClick={play.toggle} className="w-24 !px-2">
          {play.playing ? words.pause : words.play}
        </Button>
        <div className="relative min-w-0 flex-1 max-[34rem]:order-last max-[34rem]:basis-full">
          <div aria-hidden="true" className="absolute inset-x-0 top-0 flex h-2">
            <span className="border-r-2 border-ink bg-water" style={{ width: share(answer.countdown_s) }} />
            <span className="bg-take" style={{ width: share(answer.fished_to_s - answer.countdown_s) }} />
            <span className="flex-1 border-l-2 border-ink bg-light" />
          </div>
          <input
            type="range"
            aria-label={words.time}
            aria-valuetext={words.scrub(secondsText(play.t), phase)}
            min={0}
            max={answer.end_s}
            step={0.5}
            value={play.t}
            onChange={(e) => play.setT(Number(e.target.value))}
            className="mt-1 h-11 w-full accent-take"
          />
        </div>
        <p className="w-40 shrink-0 leading-tight max-[34rem]:flex max-[34rem]:w-auto max-[34rem]:items-baseline max-[34rem]:gap-2">
          <b className="text-xl">{secondsText(play.t)}</b>
          <span className="block text-[0.92rem] text-soft">{phase}</span>
        </p>
      </div>
      <ul className="flex flex-wrap gap-x-5 text-[0.95rem]" aria-live="off" data-testid="flies-now">
        {fliesAt(answer, play.t).map((fly, n) => (
          <li key={fly.name + String(n)}>
            <b>{String.fromCharCode(65 + n)}</b>{" "}
            {banded
              ? words.at(fly.name, depthText(unit, fly.depth), bandText(unit, fly.low, fly.high))
              : words.atBare(fly.name, depthText(unit, fly.depth))}
          </li>
        ))}
      </ul>
    </div>
  );
}
