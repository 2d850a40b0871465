/** Reach, units and words of the angler. Lengths are typed in the chosen unit and kept in metres. */
import { useState } from "react";
import type { Problem } from "../../api/client";
import { METHODS } from "../../lib/methods";
import { type Settings, useReader } from "../../lib/session";
import {
  boxText,
  type DepthUnit,
  depthFrom,
  depthTo,
  typedNumber,
  WIND_LABELS,
  type WindUnit,
} from "../../lib/units";
import { Choice, Field, NumberBox, Tick } from "../../ui/controls";
import { words } from "./strings";

const LENGTHS = ["rod_m", "net_m", "arm_m", "cast_m"] as const;
type Length = (typeof LENGTHS)[number];
const LABELS: Record<Length, string> = {
  rod_m: words.rod,
  net_m: words.net,
  arm_m: words.arm,
  cast_m: words.cast,
};

interface Props {
  value: Settings;
  onChange: (value: Settings) => void;
  problemAt: (path: string) => Problem | undefined;
  short?: boolean;
}

function LengthBox({
  name,
  value,
  unit,
  onChange,
  problem,
}: {
  name: Length;
  value: number;
  unit: DepthUnit;
  onChange: (m: number) => void;
  problem?: Problem;
}) {
  const [text, setText] = useState(boxText(depthTo(unit, value), unit === "m" ? 2 : 1));
  const typed = typedNumber(text);
  const bad = typed === null || Number.isNaN(typed);
  const own: Problem | undefined = bad
    ? {
        code: "not_a_number",
        path: name,
        message: "This is no length.",
        accepted: `a number in ${unit}`,
        hint: "",
      }
    : problem;
  return (
    <Field
      label={LABELS[name]}
      hint={name === "net_m" ? words.netHint : undefined}
      problem={own}
      className="w-44"
    >
      {(p) => (
        <NumberBox
          {...p}
          unit={unit}
          value={text}
          onChange={(e) => {
            setText(e.target.value);
            const next = typedNumber(e.target.value);
            if (next !== null && !Number.isNaN(next)) onChange(depthFrom(unit, next));
          }}
        />
      )}
    </Field>
  );
}

/** How many rods stand rigged, and which ways of fishing are wanted at all. */
function Wanted({ value, set }: { value: Settings; set: (part: Partial<Settings>) => void }) {
  const { say } = useReader();
  const out = value.methods_left_out ?? [];
  type Method = (typeof out)[number];
  const turn = (method: Method, on: boolean) =>
    set({ methods_left_out: on ? out.filter((one) => one !== method) : [...out, method] });
  return (
    <>
      <Choice
        label={words.rods}
        required
        value={String(value.rods)}
        options={["1", "2", "3", "4"].map((n) => ({ value: n, label: n }))}
        onChange={(n) => n && set({ rods: Number(n) })}
      />
      <fieldset>
        <legend className="font-semibold">{words.methods}</legend>
        <p className="text-[0.92rem] text-soft">{words.methodsHint}</p>
        <div className="grid grid-cols-2 gap-x-6">
          {METHODS.map((one) => (
            <Tick
              key={one.value}
              label={say(one.label)}
              checked={!out.includes(one.value)}
              onChange={(on) => {
                if (on || out.length < METHODS.length - 1) turn(one.value, on);
              }}
            />
          ))}
        </div>
        {out.length === METHODS.length - 1 && <p className="text-[0.92rem]">{words.oneMethod}</p>}
      </fieldset>
    </>
  );
}

/** Units of depth and warmth: all a first plan needs to be read. */
export function FirstUnits({ value, onChange }: Pick<Props, "value" | "onChange">) {
  const set = (part: Partial<Settings>) => onChange({ ...value, ...part });
  return (
    <>
      <Choice
        label={words.depthUnit}
        required
        value={value.depth_unit}
        options={[
          { value: "m", label: words.metres },
          { value: "ft", label: words.feet },
        ]}
        onChange={(v) => v && set({ depth_unit: v })}
      />
      <Choice
        label={words.temperatureUnit}
        required
        value={value.temperature_unit}
        options={[
          { value: "c", label: "°C" },
          { value: "f", label: "°F" },
        ]}
        onChange={(v) => v && set({ temperature_unit: v })}
      />
    </>
  );
}

/** Everything about the angler; `short` leaves out what the first page asks elsewhere. */
export function Reach({ value, onChange, problemAt, short = false }: Props) {
  const unit = value.depth_unit;
  const set = (part: Partial<Settings>) => onChange({ ...value, ...part });
  return (
    <div className="space-y-3">
      <div className="flex flex-wrap gap-x-6 gap-y-3">
        {!short && <FirstUnits value={value} onChange={onChange} />}
        <Choice
          label={words.windUnit}
          required
          value={value.wind_unit}
          options={(Object.keys(WIND_LABELS) as WindUnit[]).map((key) => ({
            value: key,
            label: WIND_LABELS[key],
          }))}
          onChange={(v) => v && set({ wind_unit: v })}
        />
        <Choice
          label={words.vocabulary}
          required
          value={value.vocabulary}
          options={words.vocabularies as { value: Settings["vocabulary"]; label: string }[]}
          onChange={(v) => v && set({ vocabulary: v })}
        />
      </div>
      <div className="flex flex-wrap gap-x-6 gap-y-3">
        {LENGTHS.map((name) => (
          <LengthBox
            key={`${name}${unit}`}
            name={name}
            unit={unit}
            value={value[name]}
            onChange={(m) => set({ [name]: m })}
            problem={problemAt(name)}
          />
        ))}
      </div>
      {!short && <Tick label={words.afloat} checked={value.afloat} onChange={(afloat) => set({ afloat })} />}
      <Wanted value={value} set={set} />
    </div>
  );
}
