/** Wind in the units people use, sky, colour of the water, pressure and level. */
import { type Draft, type Measured, typed } from "../../lib/draft";
import { useBoxes, useHandNow, useReading } from "../../lib/reading";
import { WIND_LABELS, type WindUnit } from "../../lib/units";
import { Choice, Field, NumberBox, Select, Tick } from "../../ui/controls";
import { words } from "./strings";

const POINTS = ["N", "NE", "E", "SE", "S", "SW", "W", "NW"];

/** The nearest of the eight buttons to a bearing. */
function nearestPoint(bearing: string): string {
  return bearing === "" ? "" : String((Math.round(Number(bearing) / 45) % 8) * 45);
}

function useTyped() {
  const hand = useHandNow();
  /** A change by hand: the value is no longer the forecast's or the instrument's. */
  return (name: Measured, part: Partial<Draft>) => {
    const { change, draft } = hand();
    change({ ...part, sources: typed(draft.sources, name) });
  };
}

function From({ name }: { name: Measured }) {
  const source = useBoxes("sources").draft.sources[name];
  return source && source !== "typed" ? (
    <span className="text-[0.85rem] text-soft">{words.sourceOf[source]}</span>
  ) : null;
}

function Wind() {
  const { draft, change } = useBoxes("wind", "windUnit", "gust", "windFrom", "surface");
  const { problemAt } = useReading("problemAt");
  const set = useTyped();
  return (
    <>
      <div className="flex flex-wrap gap-x-4 gap-y-2">
        <Field label={words.wind} problem={problemAt("reading.wind_m_s")} className="w-56">
          {(p) => (
            <span className="flex gap-1.5">
              <NumberBox
                {...p}
                value={draft.wind}
                onChange={(e) => set("wind", { wind: e.target.value })}
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
              onChange={(e) => set("wind", { gust: e.target.value })}
            />
          )}
        </Field>
        <From name="wind" />
      </div>
      <Choice
        label={words.from}
        value={nearestPoint(draft.windFrom)}
        options={POINTS.map((label, i) => ({ value: String(i * 45), label }))}
        onChange={(windFrom) => set("wind", { windFrom })}
      />
      <Choice
        label={words.surface}
        value={draft.surface}
        options={words.surfaces}
        onChange={(surface) => set("surface", { surface: surface as Draft["surface"] })}
      />
    </>
  );
}

function Sky() {
  const { draft, change } = useBoxes("cloud", "air", "temperatureUnit", "thunder");
  const { problemAt } = useReading("problemAt");
  const set = useTyped();
  return (
    <>
      <Choice
        label={words.cloud}
        value={draft.cloud}
        options={words.clouds}
        onChange={(cloud) => set("cloud", { cloud })}
      />
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <Field label={words.air} problem={problemAt("reading.air_temperature_c")} className="w-32">
          {(p) => (
            <NumberBox
              {...p}
              unit={draft.temperatureUnit === "c" ? "°C" : "°F"}
              value={draft.air}
              onChange={(e) => set("air_temperature", { air: e.target.value })}
            />
          )}
        </Field>
        <Tick label={words.thunder} checked={draft.thunder} onChange={(thunder) => change({ thunder })} />
      </div>
    </>
  );
}

function Pressure() {
  const { draft, change } = useBoxes("pressure", "pressureAt", "level", "depthUnit");
  const { problemAt } = useReading("problemAt");
  const set = useTyped();
  const fault = problemAt("reading.station_pressure_hpa") ?? problemAt("reading.sea_level_pressure_hpa");
  return (
    <details className="max-w-2xl">
      <summary className="min-h-11 cursor-pointer py-2 font-semibold">{words.moreReadings}</summary>
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <Field label={words.pressure} problem={fault} className="w-80">
          {(p) => (
            <span className="flex gap-1.5">
              <NumberBox
                {...p}
                unit={draft.depthUnit === "ft" ? "inHg" : "hPa"}
                className="w-36"
                value={draft.pressure}
                onChange={(e) => set("pressure", { pressure: e.target.value })}
              />
              <Select
                aria-label={words.pressureAt}
                className="!w-40"
                value={draft.pressureAt}
                onChange={(e) => change({ pressureAt: e.target.value as Draft["pressureAt"] })}
              >
                <option value="station">{words.atWater}</option>
                <option value="sea">{words.atSea}</option>
              </Select>
            </span>
          )}
        </Field>
        <Field
          label={words.level}
          hint={words.levelHint}
          problem={problemAt("reading.level_m")}
          className="w-64"
        >
          {(p) => (
            <NumberBox
              {...p}
              unit={draft.depthUnit}
              className="w-32"
              value={draft.level}
              onChange={(e) => set("level", { level: e.target.value })}
            />
          )}
        </Field>
      </div>
    </details>
  );
}

function Colour() {
  const { draft, change } = useBoxes("clarity", "secchi", "depthUnit");
  const { problemAt } = useReading("problemAt");
  const set = useTyped();
  return (
    <>
      <Choice
        label={words.clarity}
        value={draft.clarity}
        options={words.clarities}
        onChange={(clarity) => set("clarity", { clarity: clarity as Draft["clarity"] })}
      />
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
    </>
  );
}

export function Weather() {
  return (
    <section aria-labelledby="weather" className="space-y-3">
      <h2 id="weather">{words.weather}</h2>
      <Wind />
      <Sky />
      <Colour />
      <Pressure />
    </section>
  );
}
