/** What makes the reading of a water sharper, for those who know it: height, fetch, fertility, areas by depth, where places lie. */
import type { Problem } from "../../api/client";
import type { Settings } from "../../lib/session";
import { Choice, Field, NumberBox } from "../../ui/controls";
import { words } from "./strings";
import type { WaterDraft } from "./waterDraft";

interface Props {
  value: WaterDraft;
  settings: Settings;
  onChange: (value: WaterDraft) => void;
  problemAt: (path: string) => Problem | undefined;
}

export function MoreAbout({ value, settings, onChange, problemAt }: Props) {
  const set = (part: Partial<WaterDraft>) => onChange({ ...value, ...part });
  const unit = settings.depth_unit;
  const placeFault = (i: number) =>
    problemAt(`places[${i}].latitude_deg`) ?? problemAt(`places[${i}].longitude_deg`);
  return (
    <details>
      <summary className="min-h-11 cursor-pointer py-2 font-semibold">{words.more}</summary>
      <div className="space-y-3">
        <p className="text-[0.92rem] text-soft">{words.moreHint}</p>
        <div className="flex flex-wrap gap-4">
          <Field label={words.elevation} problem={problemAt("elevation_m")} className="w-44">
            {(p) => (
              <NumberBox
                {...p}
                unit={unit}
                value={value.elevation}
                onChange={(e) => set({ elevation: e.target.value })}
              />
            )}
          </Field>
          <Field label={words.fetch} hint={words.fetchHint} problem={problemAt("fetch_m")} className="w-64">
            {(p) => (
              <NumberBox
                {...p}
                unit={unit}
                value={value.fetch}
                onChange={(e) => set({ fetch: e.target.value })}
              />
            )}
          </Field>
        </div>
        <Choice
          label={words.fertile}
          value={value.productivity}
          options={words.fertileOptions}
          onChange={(productivity) => set({ productivity })}
        />
        <Field
          label={words.areas}
          hint={words.areasHint(unit, unit === "m" ? "ha" : "acres")}
          problem={problemAt("hypsography")}
          className="max-w-md"
        >
          {(p) => (
            <textarea
              {...p}
              rows={5}
              className="w-full rounded-md border-2 border-edge bg-raised px-2.5 py-1 aria-invalid:border-warm"
              value={value.areas}
              onChange={(e) => set({ areas: e.target.value })}
            />
          )}
        </Field>
        <fieldset>
          <legend className="font-semibold">{words.lies}</legend>
          {value.places.map((place, i) => (
            <div key={place.id} className="mt-1 flex flex-wrap items-end gap-2">
              <span className="w-40 truncate">{place.name || words.place(i + 1)}</span>
              {(["latitude", "longitude"] as const).map((axis) => (
                <NumberBox
                  key={axis}
                  aria-label={`${words.place(i + 1)}: ${words[axis]}`}
                  placeholder={words[axis]}
                  className="w-36"
                  value={place[axis]}
                  onChange={(e) =>
                    set({
                      places: value.places.map((p, k) => (k === i ? { ...p, [axis]: e.target.value } : p)),
                    })
                  }
                />
              ))}
              {placeFault(i) && <span className="text-warm">{placeFault(i)?.message}</span>}
            </div>
          ))}
        </fieldset>
      </div>
    </details>
  );
}
