/** What a notebook's columns mean, in which units, and which water is meant by what it calls it. */
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { typedNumber } from "../../lib/units";
import { useWater } from "../../lib/waters";
import { Choice, Field, NumberBox, Select } from "../../ui/controls";
import { MEANINGS, words } from "./strings";

type Told = Schemas["NotebookOut"];
type MappingBody = Schemas["MappingBody"];
type Meaning = NonNullable<MappingBody["fields"][number]>;

interface Props {
  told: Told;
  busy: boolean;
  onChange: (mapping: MappingBody) => void;
}

function Columns({ told, onChange }: Props) {
  const { mapping } = told;
  const mean = (at: number, meaning: Meaning | null) =>
    onChange({
      ...mapping,
      // A meaning stands for one column: given to another it leaves the one before.
      fields: told.columns.map((_, n) =>
        n === at ? meaning : mapping.fields[n] === meaning ? null : (mapping.fields[n] ?? null),
      ),
    });
  return (
    <table className="w-full max-w-xl">
      <caption className="text-left font-bold">{words.means}</caption>
      <thead>
        <tr className="border-b-2 border-ink text-left">
          <th scope="col">{words.column}</th>
          <th scope="col" className="pl-3">
            {words.meaning}
          </th>
        </tr>
      </thead>
      <tbody>
        {told.columns.map((name, n) => (
          <tr key={n} className="border-b border-rule">
            <th scope="row" className="max-w-56 py-1 text-left">
              {name || "–"}
              <span className="block truncate font-normal text-[0.92rem] text-soft">
                {told.first_lines
                  .map((cells) => cells[n])
                  .filter(Boolean)
                  .slice(0, 3)
                  .join(" · ")}
              </span>
            </th>
            <td className="py-1 pl-3">
              <Select
                aria-label={`${name || n + 1}: ${words.meaning}`}
                value={mapping.fields[n] ?? ""}
                onChange={(e) => mean(n, (e.target.value || null) as Meaning | null)}
              >
                <option value="">{words.none}</option>
                {MEANINGS.map((one) => (
                  <option key={one.value} value={one.value}>
                    {one.label}
                  </option>
                ))}
              </Select>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Hours({ value, onChange }: { value: number; onChange: (hours: number) => void }) {
  const [text, setText] = useState(String(value));
  const typed = typedNumber(text);
  const fits = typed !== null && typed >= 0.5 && typed <= 16;
  return (
    <Field
      label={words.hours}
      hint={words.hoursHint}
      className="w-56"
      problem={
        fits
          ? undefined
          : { code: "hours", path: "day_h", message: `“${text}” ${words.noHours}.`, accepted: "", hint: "" }
      }
    >
      {(p) => (
        <NumberBox
          {...p}
          unit="h"
          value={text}
          onChange={(e) => setText(e.target.value)}
          onBlur={() => fits && typed !== value && onChange(typed)}
        />
      )}
    </Field>
  );
}

function Waters({ told, onChange }: Props) {
  const { list } = useWater();
  const { mapping } = told;
  const options = (
    <>
      <option value="">{words.noWater}</option>
      {list.map((water) => (
        <option key={water.id} value={water.id}>
          {water.name}
        </option>
      ))}
    </>
  );
  if (told.waters.length === 0)
    return (
      <Field label={words.whichWater} className="max-w-72">
        {(p) => (
          <Select
            {...p}
            value={mapping.water_id ?? ""}
            onChange={(e) => onChange({ ...mapping, water_id: e.target.value || null })}
          >
            {options}
          </Select>
        )}
      </Field>
    );
  return (
    <div className="space-y-2">
      {told.waters.map((one) => (
        <Field key={one.name} label={words.named(one.name, one.lines)} className="max-w-72">
          {(p) => (
            <Select
              {...p}
              value={one.water_id ?? ""}
              onChange={(e) => {
                const { [one.name]: _was, ...rest } = mapping.waters ?? {};
                onChange({
                  ...mapping,
                  waters: e.target.value ? { ...rest, [one.name]: e.target.value } : rest,
                });
              }}
            >
              {options}
            </Select>
          )}
        </Field>
      ))}
      {told.waters.some((one) => !one.water_id) && <p className="text-soft">{words.addWater}</p>}
    </div>
  );
}

export function Mapping(props: Props) {
  const { told, onChange } = props;
  const { mapping } = told;
  const has = (meaning: Meaning) => mapping.fields.includes(meaning);
  return (
    <fieldset disabled={props.busy} className="min-w-0 space-y-3">
      <Columns {...props} />
      <Waters {...props} />
      <div className="flex flex-wrap gap-x-6 gap-y-3">
        <Choice
          label={words.aLine}
          required
          value={mapping.a_line ?? "stretch"}
          options={[
            { value: "stretch", label: words.stretch },
            { value: "fish", label: words.fish },
          ]}
          onChange={(next) => next && onChange({ ...mapping, a_line: next })}
        />
        <Field label={words.dayOrder}>
          {(p) => (
            <Select
              {...p}
              value={mapping.day_order}
              onChange={(e) =>
                onChange({ ...mapping, day_order: e.target.value as MappingBody["day_order"] })
              }
            >
              {words.orders.map((one) => (
                <option key={one.value} value={one.value}>
                  {one.label}
                </option>
              ))}
            </Select>
          )}
        </Field>
        {has("depth") && (
          <Choice
            label={words.depths}
            required
            value={mapping.depth_unit ?? "m"}
            options={[
              { value: "m", label: "m" },
              { value: "ft", label: "ft" },
            ]}
            onChange={(next) => next && onChange({ ...mapping, depth_unit: next })}
          />
        )}
        {has("length") && (
          <Choice
            label={words.lengths}
            required
            value={mapping.length_unit ?? "cm"}
            options={[
              { value: "cm", label: "cm" },
              { value: "in", label: "in" },
            ]}
            onChange={(next) => next && onChange({ ...mapping, length_unit: next })}
          />
        )}
        {has("temperature") && (
          <Choice
            label={words.warmth}
            required
            value={mapping.temperature_unit ?? "c"}
            options={[
              { value: "c", label: "°C" },
              { value: "f", label: "°F" },
            ]}
            onChange={(next) => next && onChange({ ...mapping, temperature_unit: next })}
          />
        )}
        <Hours value={mapping.day_h ?? 4} onChange={(day_h) => onChange({ ...mapping, day_h })} />
      </div>
    </fieldset>
  );
}
