/** Reading the cord with one cold hand: one depth at a time, big keys, the column filling up beside them. */
import { useEffect, useRef, useState } from "react";
import { Column } from "../../column/Column";
import { useColumn } from "../../column/scale";
import { EMPTY_ROW } from "../../lib/draft";
import { useFeed } from "../../lib/feed";
import { useBoxes } from "../../lib/reading";
import { useReader } from "../../lib/session";
import {
  boxText,
  depthFrom,
  depthText,
  depthTo,
  temperatureText,
  temperatureTo,
  typedNumber,
} from "../../lib/units";
import type { Water } from "../../lib/waters";
import { Button } from "../../ui/controls";
import { useBackCloses, useFocusBack } from "../../ui/useBack";
import { words } from "./strings";
import { readPoints, useGuide } from "./useGuide";

const KEYS = ["1", "2", "3", "4", "5", "6", "7", "8", "9", ".", "0", "⌫"];

/** The readings so far as knots on the cord, and the depth that is wanted. */
function Tied({ wantedM }: { wantedM: number | null }) {
  const scale = useColumn();
  const { draft } = useBoxes("rows", "depthUnit", "temperatureUnit");
  const points = readPoints(draft);
  return (
    <g data-layer="tied">
      {wantedM !== null && (
        <g>
          <path
            d={`M${scale.cordX} ${scale.surfaceY}V${scale.y(wantedM)}`}
            stroke="var(--take)"
            strokeWidth="5"
          />
          <circle cx={scale.cordX} cy={scale.y(wantedM)} r="10" fill="var(--take)" />
        </g>
      )}
      {points.map((p) => (
        <g key={p.depth_m}>
          <circle cx={scale.cordX} cy={scale.y(p.depth_m)} r="6" fill="var(--warm)" />
          <text
            className="halo"
            x={scale.cordX + 14}
            y={scale.y(p.depth_m) + 5}
            fontSize="15"
            fontWeight="700"
            fill="var(--warm)"
          >
            {temperatureText(draft.temperatureUnit, p.temperature_c)}
          </text>
        </g>
      ))}
    </g>
  );
}

function useLive() {
  const feed = useFeed().data;
  const fresh = feed && feed.temperature_c !== null && (feed.temperature_age_s ?? 99) < 5;
  return fresh ? { value: feed.temperature_c ?? 0, steady: feed.steady } : null;
}

/** The depth of water the cord goes down to: as read, else the place's deepest, else the water's. */
function bedOf(water: Water, place: string, typedBed: number | null): number {
  const found = water.places.find((p) => p.name === place);
  return typedBed ?? found?.depth_max_m ?? water.max_depth_m;
}

export default function Guided({ water, onClose }: { water: Water; onClose: () => void }) {
  const { draft, change } = useBoxes(
    "rows",
    "place",
    "waterDepth",
    "depthUnit",
    "temperatureUnit",
    "sources",
  );
  const { say } = useReader();
  const [typedText, setTyped] = useState("");
  const [wrong, setWrong] = useState("");
  const [held, setHeld] = useState<string[]>([]);
  const box = useRef<HTMLDivElement>(null);
  const bedBox = typedNumber(draft.waterDepth);
  const bedM = bedOf(
    water,
    draft.place,
    bedBox !== null && !Number.isNaN(bedBox) ? depthFrom(draft.depthUnit, bedBox) : null,
  );
  const next = useGuide(draft, bedM);
  const live = useLive();
  const focusBack = useFocusBack();
  useBackCloses(() => {
    onClose();
    return true;
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: taken when it opens, given back when it closes
  useEffect(() => {
    box.current?.focus();
    return focusBack;
  }, []);
  const tie = (celsiusText: string, live: boolean) => {
    const value = typedNumber(celsiusText);
    if (value === null || Number.isNaN(value)) {
      setWrong(words.notYet);
      return;
    }
    if (next.depthM === null) {
      // Tied before the next depth is told: held for it, and the keys after it are the value after it.
      if (next.waiting) {
        setHeld([...held, celsiusText]);
        setTyped("");
      }
      return;
    }
    const depth = boxText(depthTo(draft.depthUnit, next.depthM), 2);
    const filled = draft.rows.filter((r) => r.depth.trim() || r.temperature.trim());
    const rows = [...filled, { ...EMPTY_ROW, depth, temperature: celsiusText }].sort(
      (a, b) => (typedNumber(a.depth) ?? 0) - (typedNumber(b.depth) ?? 0),
    );
    const from = live ? { ...draft.sources, profile: "instrument" as const } : draft.sources;
    change({ rows, sources: from, profileAt: "" });
    if (celsiusText === typedText) setTyped("");
    setWrong("");
    navigator.vibrate?.(30);
  };
  const [first, ...rest] = held;
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was held is tied when a depth is told
  useEffect(() => {
    if (first === undefined || next.waiting) return;
    setHeld(rest);
    if (next.depthM !== null) tie(first, false);
  }, [first, next.waiting, next.depthM]);
  const takeBack = () => {
    const last = readPoints(draft).at(-1);
    if (!last) return;
    const depth = boxText(depthTo(draft.depthUnit, last.depth_m), 2);
    change({ rows: draft.rows.filter((r) => r.depth !== depth) });
  };
  const press = (key: string) => {
    setWrong("");
    if (key === "⌫") setTyped(typedText.slice(0, -1));
    else if (typedText.length < 5 && !(key === "." && typedText.includes("."))) setTyped(typedText + key);
  };
  const unit = draft.temperatureUnit === "c" ? "°C" : "°F";
  const enough = next.depthM === null && !next.waiting;
  return (
    <div
      ref={box}
      role="dialog"
      aria-modal="true"
      aria-label={words.guided}
      tabIndex={-1}
      onKeyDown={(event) => {
        if (event.key === "Escape") onClose();
        else if (event.key === "Enter") enough ? onClose() : tie(typedText, false);
        else if (event.key === "Backspace") press("⌫");
        else if (/^[0-9.,]$/.test(event.key)) press(event.key.replace(",", "."));
        else return;
        event.preventDefault();
      }}
      className="fixed inset-0 z-40 grid grid-cols-[minmax(6.5rem,30vw)_1fr] bg-paper outline-none"
    >
      <Column
        bedM={bedM}
        unit={draft.depthUnit}
        summary={words.guided}
        className="h-full border-r-2 border-ink"
      >
        <Tied wantedM={next.depthM} />
      </Column>
      <div className="flex min-h-0 flex-col p-3">
        <div className="flex items-start justify-between gap-2">
          <p aria-live="polite" className="text-[1.5rem] leading-tight font-bold">
            {next.depthM === null
              ? next.waiting
                ? words.working
                : words.enough
              : next.depthM === 0
                ? words.atSurface
                : words.letDown(depthText(draft.depthUnit, next.depthM))}
          </p>
          <Button look="quiet" className="shrink-0 px-2" onClick={onClose}>
            {words.guideClose}
          </Button>
        </div>
        <p className="text-soft">
          {say(next.why)} {next.offline && words.guideOffline}
        </p>
        {live && next.depthM !== null && (
          <Button
            look="main"
            className="mt-2 min-h-14 text-lg"
            onClick={() => tie(boxText(temperatureTo(draft.temperatureUnit, live.value), 1), true)}
          >
            {words.takeLive(temperatureText(draft.temperatureUnit, live.value), live.steady)}
          </Button>
        )}
        <output
          className="mt-auto block py-1 text-right text-[2.6rem] leading-none font-bold"
          aria-label={words.temperature}
        >
          {typedText || "–"} <span className="text-xl">{unit}</span>
        </output>
        {held.length > 0 && (
          <p role="status" className="text-right text-soft">
            {words.held(held.join(", "))}
          </p>
        )}
        {wrong && (
          <p role="alert" className="text-right font-bold text-warm">
            {wrong}
          </p>
        )}
        <div className="mt-1 grid grid-cols-3 gap-1.5">
          {KEYS.map((key) => (
            <button
              key={key}
              type="button"
              aria-label={key === "⌫" ? words.rubOut : key}
              onClick={() => press(key)}
              disabled={enough}
              className="min-h-[3.6rem] rounded-lg border-2 border-edge bg-raised text-[1.6rem] font-semibold active:bg-ink active:text-raised disabled:opacity-40"
            >
              {key}
            </button>
          ))}
        </div>
        <div className="mt-1.5 grid grid-cols-[1fr_2fr] gap-1.5">
          <Button className="min-h-14" onClick={takeBack}>
            {words.takeBack}
          </Button>
          {enough ? (
            <Button look="main" className="min-h-14 text-lg" onClick={onClose}>
              {words.guideDone}
            </Button>
          ) : (
            <Button look="main" className="min-h-14 text-lg" onClick={() => tie(typedText, false)}>
              {words.tieIt}
            </Button>
          )}
        </div>
      </div>
    </div>
  );
}
