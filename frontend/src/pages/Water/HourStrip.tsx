/** The day by the hour: wind with its gusts and direction, sun and cloud, one column an hour; the hour in hand is picked. */

import { useMutation } from "@tanstack/react-query";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { ApiError, api, need, type Schemas } from "../../api/client";
import { MetarBody_text_longest } from "../../api/generated/limits";
import { Failed } from "../../components/states";
import { type Draft, inBoxes, typed } from "../../lib/draft";
import type { Meaning } from "../../lib/meaning";
import { useBoxes, useHandNow } from "../../lib/reading";
import { useReader } from "../../lib/session";
import { clockText, dayAndClock, fromBoxTime } from "../../lib/time";
import { pointOf, WIND_LABELS, windTo } from "../../lib/units";
import type { Water } from "../../lib/waters";
import { useFetchWeather, useWeather } from "../../lib/weather";
import { Button, Fault, Field, TextBox } from "../../ui/controls";
import { words } from "./strings";

type Hour = Meaning["wind_hours"][number];

function Arrow({ fromDeg }: { fromDeg: number }) {
  return (
    <svg viewBox="-10 -10 20 20" className="mx-auto size-5" aria-hidden="true">
      <path
        d="M0 8V-8M-5 -2L0 -8L5 -2"
        transform={`rotate(${fromDeg + 180})`}
        fill="none"
        stroke="currentColor"
        strokeWidth="2.4"
      />
    </svg>
  );
}

/** The forecast's hour nearest to now goes into the reading, marked as forecast. */
function fromForecast(draft: Draft, hour: Schemas["Hour"]): Partial<Draft> {
  const sources = typed(draft.sources, "wind", "cloud", "air_temperature", "pressure");
  return {
    ...inBoxes(
      {
        wind_m_s: hour.wind_m_s,
        gust_m_s: draft.windUnit === "bft" ? null : hour.gust_m_s,
        wind_from_deg: hour.wind_from_deg,
        cloud_oktas: hour.cloud_oktas == null ? null : Math.round(hour.cloud_oktas / 2) * 2,
        air_temperature_c: hour.air_temperature_c,
        sea_level_pressure_hpa: hour.sea_level_pressure_hpa,
      },
      draft,
    ),
    sources: {
      ...sources,
      wind: "forecast",
      cloud: "forecast",
      air_temperature: "forecast",
      pressure: "forecast",
    },
  };
}

function nearest<T extends { when: string }>(hours: T[], when: number): T | null {
  let best: T | null = null;
  for (const hour of hours) {
    const gap = Math.abs(new Date(hour.when).getTime() - when);
    if (gap < 5_400_000 && (!best || gap < Math.abs(new Date(best.when).getTime() - when))) best = hour;
  }
  return best;
}

export default function HourStrip({ water, meaning }: { water: Water; meaning: Meaning | undefined }) {
  const hand = useHandNow();
  const { draft } = useBoxes("when");
  const { settings } = useReader();
  const weather = useWeather(water.id);
  const fetchWeather = useFetchWeather(water.id);
  const zone = water.time_zone ?? "UTC";
  const chosen = draft.when === "" ? null : fromBoxTime(draft.when, zone);
  const when = (chosen ?? new Date()).getTime();
  const hours = weather.data?.hours ?? [];
  const now = nearest(hours, when);
  const faults = fetchWeather.error instanceof ApiError ? fetchWeather.error.problems : [];
  const windHours = meaning?.wind_hours ?? [];
  return (
    <section aria-labelledby="by-hour" className="space-y-1.5">
      <h3 id="by-hour">{words.byHour}</h3>
      {meaning && (
        <Strip
          hours={windHours}
          light={meaning?.light.hours ?? []}
          zone={zone}
          unit={settings.wind_unit}
          when={when}
        />
      )}
      {windHours.length === 0 && (
        <p className="text-soft">{weather.isPending ? words.working : words.noForecast}</p>
      )}
      {meaning?.wind_turns.map((turn) => (
        <p key={turn}>{turn}</p>
      ))}
      <div className="flex flex-wrap items-center gap-2">
        <Button onClick={() => fetchWeather.mutate()} disabled={fetchWeather.isPending}>
          {fetchWeather.isPending ? words.working : hours.length > 0 ? words.fetchAgain : words.fetchForecast}
        </Button>
        {now && (
          <Button onClick={() => hand().change(fromForecast(hand().draft, now))}>
            {words.hourInto(clockText(now.when, zone))}
          </Button>
        )}
        {weather.data?.fetched_at && (
          <span className="text-[0.92rem] text-soft">
            {words.forecastFrom(weather.data.source, clockText(weather.data.fetched_at, zone))}
          </span>
        )}
      </div>
      {faults.map((p) => (
        <Fault key={p.code} problem={p} />
      ))}
      {fetchWeather.isError && faults.length === 0 && <Failed error={fetchWeather.error} />}
      <Metar waterId={water.id} />
    </section>
  );
}

/** The weather an airfield near tells: pasted as it was copied, or asked for. */
function Metar({ waterId }: { waterId: string }) {
  const hand = useHandNow();
  const [text, setText] = useState("");
  const read = useMutation({
    mutationFn: (pasted: boolean) =>
      pasted
        ? need(api.POST("/api/weather/metar", { body: { text } }))
        : need(api.POST("/api/waters/{water_id}/weather/metar", { params: { path: { water_id: waterId } } })),
    onSuccess: (told) => hand().change(fromForecast(hand().draft, told.hour)),
  });
  const faults = read.error instanceof ApiError ? read.error.problems : [];
  return (
    <details>
      <summary className="min-h-11 cursor-pointer py-2 font-semibold">{words.metar}</summary>
      <div className="flex flex-wrap items-end gap-2">
        <Field
          label={words.metarText}
          problem={faults.find((p) => p.path === "text")}
          className="min-w-64 flex-1"
        >
          {(p) => (
            <TextBox
              {...p}
              maxLength={MetarBody_text_longest}
              value={text}
              onChange={(e) => setText(e.target.value)}
            />
          )}
        </Field>
        <Button disabled={read.isPending || text.trim() === ""} onClick={() => read.mutate(true)}>
          {words.metarInto}
        </Button>
        <Button disabled={read.isPending} onClick={() => read.mutate(false)}>
          {words.metarAsk}
        </Button>
      </div>
      {faults
        .filter((p) => p.path !== "text")
        .map((p) => (
          <Fault key={p.code} problem={p} />
        ))}
      {read.isError && faults.length === 0 && <Failed error={read.error} />}
      {read.isSuccess && (
        <p role="status" className="text-[0.92rem] text-soft">
          {words.metarSaid(read.data.station, dayAndClock(read.data.hour.when, "UTC"))}
        </p>
      )}
    </details>
  );
}

interface StripProps {
  hours: Hour[];
  light: Meaning["light"]["hours"];
  zone: string;
  unit: keyof typeof WIND_LABELS;
  when: number;
}

type LightHour = StripProps["light"][number];

function RowHead({ children }: { children: ReactNode }) {
  return (
    <th scope="row" className="sticky left-0 bg-paper pr-2 text-left align-middle font-semibold">
      {children}
    </th>
  );
}

function WindRows({ hours, light, unit }: { hours: Hour[]; light: LightHour[]; unit: StripProps["unit"] }) {
  const most = Math.max(6, ...hours.map((h) => h.gust_m_s ?? h.wind_m_s));
  const wind = new Map(hours.map((h) => [new Date(h.when).getTime(), h]));
  const at = (one: LightHour) => wind.get(new Date(one.when).getTime());
  return (
    <>
      <tr className="h-16 align-bottom">
        <RowHead>
          {words.wind}, {WIND_LABELS[unit]}
        </RowHead>
        {light.map((one) => {
          const h = at(one);
          return (
            <td key={one.when} className="px-0.5 align-bottom">
              {h && (
                <>
                  <span className="block">{windTo(unit, h.wind_m_s).toFixed(0)}</span>
                  <span
                    title={h.gust_m_s === null ? undefined : words.gusts(windTo(unit, h.gust_m_s).toFixed(0))}
                    className={`relative mx-auto block w-4 border-2 ${h.boat === "stop" ? "border-warm bg-warm" : h.boat === "caution" ? "border-warm" : "border-water"}`}
                    style={{ height: `${(34 * h.wind_m_s) / most}px` }}
                  />
                </>
              )}
            </td>
          );
        })}
      </tr>
      <tr>
        <RowHead>{words.blowsTo}</RowHead>
        {light.map((one) => {
          const h = at(one);
          return (
            <td key={one.when}>
              {h && h.from_deg !== null && (
                <>
                  <Arrow fromDeg={h.from_deg} />
                  <span>{h.onto}</span>
                </>
              )}
            </td>
          );
        })}
      </tr>
    </>
  );
}

function SunRows({ light }: { light: LightHour[] }) {
  return (
    <>
      <tr>
        <RowHead>{words.sun}</RowHead>
        {light.map((h) => (
          <td key={h.when} title={h.spot ? words.spotHour : undefined}>
            {h.sun_deg > 0 ? `${h.sun_deg.toFixed(0)}°` : h.sun_deg > -6 ? words.twilight : "·"}
            {h.spot && <span className="block text-light">◉</span>}
          </td>
        ))}
      </tr>
      <tr>
        <RowHead>{words.lookTo}</RowHead>
        {light.map((h) => (
          <td key={h.when}>{h.look_deg === null ? "·" : pointOf(h.look_deg)}</td>
        ))}
      </tr>
    </>
  );
}

function Strip({ hours, light, zone, unit, when }: StripProps) {
  const box = useRef<HTMLDivElement>(null);
  const now = (iso: string) => Math.abs(new Date(iso).getTime() - when) <= 1_800_000;
  // The hour in hand stands in view.
  useEffect(() => {
    const strip = box.current;
    const cell = strip?.querySelector<HTMLElement>("[data-now]");
    if (strip && cell) strip.scrollLeft = cell.offsetLeft - strip.clientWidth / 2;
  });
  return (
    <>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by the keyboard */}
      <div ref={box} role="group" tabIndex={0} aria-label={words.byHour} className="relative overflow-x-auto">
        <table className="border-collapse text-center text-[0.85rem]">
          <caption className="sr-only">{words.byHour}</caption>
          <tbody>
            <tr>
              <RowHead>{words.hour}</RowHead>
              {light.map((h) => (
                <td
                  key={h.when}
                  data-now={now(h.when) ? "" : undefined}
                  className={`min-w-8 px-0.5 ${now(h.when) ? "bg-ink font-bold text-raised" : ""}`}
                >
                  {clockText(h.when, zone).slice(0, 2)}
                </td>
              ))}
            </tr>
            {hours.length > 0 && <WindRows hours={hours} light={light} unit={unit} />}
            <SunRows light={light} />
          </tbody>
        </table>
      </div>
      <p className="text-[0.85rem] text-soft">
        {hours.length > 0 && words.stripKey} {words.sunKey}
      </p>
    </>
  );
}
