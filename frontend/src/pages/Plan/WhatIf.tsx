/** What if the wind got up, the cloud went, it were an hour later: tried beside the plan, then kept or dropped. */
import type { Schemas } from "../../api/client";
import { Failed, Loading } from "../../components/states";
import { chosenBelief } from "../../lib/cord";
import { useReading } from "../../lib/reading";
import { useReader } from "../../lib/session";
import { bandText, WIND_LABELS } from "../../lib/units";
import { Button, Choice, Field, NumberBox, Select } from "../../ui/controls";
import { useDone } from "../../ui/UndoBar";
import { words as waterWords } from "../Water/strings";
import { words } from "./strings";
import type { WhatIf as Tried } from "./useWhatIf";

const w = words.whatIf;
const HOURS = Array.from({ length: 24 }, (_, h) => String(h).padStart(2, "0"));

function Row({ name, plan }: { name: string; plan: Schemas["PlanAnswer"] }) {
  const { settings, say } = useReader();
  const belief = chosenBelief(plan);
  const half = belief?.bands.find((b) => b.share === 0.5);
  const first = plan.set_ups[0];
  return (
    <tr className="border-t border-rule align-top">
      <th scope="row" className="py-1 pr-3 text-left font-semibold">
        {name}
      </th>
      <td className="py-1">
        {half &&
          belief &&
          words.headline(bandText(settings.depth_unit, half.top_m, half.bottom_m), belief.place)}
        <span className="block text-soft">{first ? say(first.title) : words.nothing}</span>
        {plan.cautions
          .filter((c) => c.level === "stop")
          .map((c) => (
            <b key={c.code} className="block text-warm">
              {words.levels.stop}. {say(c.sentence)}
            </b>
          ))}
      </td>
    </tr>
  );
}

function Outcome({ one }: { one: Tried }) {
  const { say } = useReader();
  const { change, draft } = useReading("change", "draft");
  const done = useDone();
  if (one.error) return <Failed error={one.error} />;
  if (!one.before || !one.after) return <Loading what={w.working} />;
  const keep = () => {
    const before = { ...draft };
    change(one.part);
    one.drop();
    done({ text: w.kept, undo: () => change(before) });
  };
  return (
    <div aria-busy={one.working} className="border-l-4 border-take pl-3">
      <table className="w-full max-w-xl">
        <tbody>
          <Row name={w.before} plan={one.before} />
          <Row name={w.after} plan={one.after} />
        </tbody>
      </table>
      {(one.after.moved_by ?? []).length > 0 && <p>{say((one.after.moved_by ?? []).join(" "))}</p>}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button look="main" onClick={keep} disabled={one.working}>
          {w.keep}
        </Button>
        <Button onClick={one.drop}>{w.drop}</Button>
      </div>
    </div>
  );
}

export default function WhatIf({ one }: { one: Tried }) {
  const { draft } = useReading("draft");
  const read = draft.rows.some((row) => row.temperature.trim() !== "");
  const degrees = draft.temperatureUnit === "c" ? [-4, -2, 2, 4] : [-8, -4, 4, 8];
  const unit = draft.temperatureUnit === "c" ? "°C" : "°F";
  const fault = one.problems.find((p) => p.path === "reading.wind_m_s");
  return (
    <div className="space-y-3">
      <p className="text-soft">{w.about}</p>
      <div className="flex flex-wrap items-start gap-x-5 gap-y-3">
        <Field label={w.wind} problem={fault} className="w-36">
          {(p) => (
            <NumberBox
              {...p}
              unit={WIND_LABELS[draft.windUnit]}
              placeholder={draft.wind}
              value={one.tried.wind ?? ""}
              onChange={(e) => one.change({ wind: e.target.value === "" ? undefined : e.target.value })}
            />
          )}
        </Field>
        <Field label={w.hour} className="w-28">
          {(p) => (
            <Select
              {...p}
              value={one.tried.hour ?? ""}
              onChange={(e) => one.change({ hour: e.target.value || undefined })}
            >
              <option value="">{w.asRead}</option>
              {HOURS.map((h) => (
                <option key={h} value={h}>
                  {h}:00
                </option>
              ))}
            </Select>
          )}
        </Field>
      </div>
      <Choice
        label={waterWords.cloud}
        value={one.tried.cloud ?? ""}
        options={waterWords.clouds}
        onChange={(cloud) => one.change({ cloud: cloud || undefined })}
      />
      <Choice
        label={waterWords.clarity}
        value={one.tried.clarity ?? ""}
        options={waterWords.clarities}
        onChange={(clarity) => one.change({ clarity: clarity || undefined })}
      />
      {read ? (
        <Choice
          label={w.warmer}
          value={one.tried.warmer ? String(one.tried.warmer) : ""}
          options={degrees.map((d) => ({
            value: String(d),
            label: `${d > 0 ? "+" : "−"}${Math.abs(d)} ${unit}`,
          }))}
          onChange={(d) => one.change({ warmer: d === "" ? undefined : Number(d) })}
        />
      ) : (
        <p className="text-soft">{w.noTemperature}</p>
      )}
      {one.on && <Outcome one={one} />}
    </div>
  );
}
