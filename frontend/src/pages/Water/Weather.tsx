/** Wind in the units people use, sky, colour of the water. */
import type { Draft } from "../../lib/draft";
import { useReading } from "../../lib/reading";
import { WIND_LABELS, type WindUnit } from "../../lib/units";
import { Choice, Field, NumberBox, Select, Tick } from "../../ui/controls";
import { words } from "./strings";

const POINTS = ["N", "NE", "E", "SE", "S", "SW", "W", "NW"];

/** The nearest of the eight buttons to a bearing. */
function nearestPoint(bearing: string): string {
  return bearing === "" ? "" : String((Math.round(Number(bearing) / 45) % 8) * 45);
}

export function Weather() {
  const { draft, change, problemAt } = useReading();
  const temperature = draft.temperatureUnit === "c" ? "°C" : "°F";
  return (
    <section aria-labelledby="weather" className="space-y-3">
      <h2 id="weather">{words.weather}</h2>
      <div className="flex flex-wrap gap-x-4 gap-y-2">
        <Field label={words.wind} problem={problemAt("reading.wind_m_s")} className="w-56">
          {(p) => (
            <span className="flex gap-1.5">
              <NumberBox
                {...p}
                value={draft.wind}
                onChange={(e) => change({ wind: e.target.value })}
                className="w-24"
              />
              <Select
                aria-label={words.windUnit}
                className="!w-28"
                value={draft.windUnit}
                onChange={(e) => change({ windUnit: e.target.value as WindUnit })}
              >
                {(Object.keys(WIND_LABELS) as WindUnit[]).map((unit) => (
                  <option key={unit} value={unit}>
                    {WIND_LABELS[unit]}
                  </option>
                ))}
              </Select>
            </span>
          )}
        </Field>
        <Field label={words.gust} problem={problemAt("reading.gust_m_s")} className="w-32">
          {(p) => (
            <NumberBox
              {...p}
              unit={WIND_LABELS[draft.windUnit]}
              value={draft.gust}
              onChange={(e) => change({ gust: e.target.value })}
            />
          )}
        </Field>
        <Field label={words.air} problem={problemAt("reading.air_temperature_c")} className="w-32">
          {(p) => (
            <NumberBox
              {...p}
              unit={temperature}
              value={draft.air}
              onChange={(e) => change({ air: e.target.value })}
            />
          )}
        </Field>
      </div>
      <Choice
        label={words.from}
        value={nearestPoint(draft.windFrom)}
        options={POINTS.map((label, i) => ({ value: String(i * 45), label }))}
        onChange={(windFrom) => change({ windFrom })}
      />
      <Choice
        label={words.cloud}
        value={draft.cloud}
        options={words.clouds}
        onChange={(cloud) => change({ cloud })}
      />
      <Choice
        label={words.clarity}
        value={draft.clarity}
        options={words.clarities}
        onChange={(clarity) => change({ clarity: clarity as Draft["clarity"] })}
      />
      <div className="flex flex-wrap items-end gap-x-6">
        <Field label={words.secchi} problem={problemAt("reading.secchi_m")} className="w-60">
          {(p) => (
            <NumberBox
              {...p}
              unit={draft.depthUnit}
              value={draft.secchi}
              onChange={(e) => change({ secchi: e.target.value })}
            />
          )}
        </Field>
        <Tick label={words.thunder} checked={draft.thunder} onChange={(thunder) => change({ thunder })} />
      </div>
    </section>
  );
}
