/** The flies on the leader: where each is tied, what it weighs in water, how it sinks; or all that from its build. */
import { useState } from "react";
import { ApiError, type Schemas } from "../../api/client";
import { TiedFly_name_longest } from "../../api/generated/limits";
import { Button, Field, Select, TextBox } from "../../ui/controls";
import { Sheet } from "../../ui/Sheet";
import { Amount, useUnits } from "./Amount";
import { Part, type PartProps } from "./RigForm";
import { faultAt, leaderLength, type TiedFly } from "./rig";
import { words } from "./strings";
import { useBuild } from "./useThread";

type Build = Schemas["FlyBuild"];

function Options({ list }: { list: readonly string[] }) {
  return (
    <>
      {list.map((one) => (
        <option key={one} value={one}>
          {one}
        </option>
      ))}
    </>
  );
}

function BuildForm({ onUse }: { onUse: (grams: number, speed: number) => void }) {
  const units = useUnits();
  const ask = useBuild();
  const [build, setBuild] = useState<Build>({
    hook: 12,
    wire: "standard",
    bead: null,
    bead_mm: 0,
    turns: 0,
    turns_wire_mm: 0.4,
    foam_mm3: 0,
    bulk: "slim",
  });
  const problems = ask.error instanceof ApiError ? ask.error.problems : [];
  const set = (part: Partial<Build>) => {
    const next = { ...build, ...part };
    setBuild(next);
    ask.mutate(next);
  };
  const bead = (name: string) =>
    set({
      bead: name === "none" ? null : (name as Build["bead"]),
      bead_mm: name === "none" ? 0 : build.bead_mm || 2.8,
    });
  return (
    <div className="space-y-3">
      <div className="flex flex-wrap gap-3">
        <Amount
          label={words.hook}
          unit={units.count}
          value={build.hook}
          onChange={(v) => set({ hook: Math.round(v) })}
          problem={faultAt(problems, "build.hook")}
          className="w-20"
        />
        <Field label={words.wire} className="w-32">
          {(p) => (
            <Select
              {...p}
              value={build.wire}
              onChange={(e) => set({ wire: e.target.value as Build["wire"] })}
            >
              <Options list={words.wires} />
            </Select>
          )}
        </Field>
        <Field label={words.bead} className="w-32">
          {(p) => (
            <Select {...p} value={build.bead ?? "none"} onChange={(e) => bead(e.target.value)}>
              <Options list={words.beads} />
            </Select>
          )}
        </Field>
        {build.bead && (
          <Amount
            label={words.beadSize}
            unit={units.mm}
            value={build.bead_mm}
            onChange={(v) => set({ bead_mm: v })}
            problem={faultAt(problems, "build.bead_mm")}
          />
        )}
        <Amount
          label={words.turns}
          unit={units.count}
          value={build.turns}
          onChange={(v) => set({ turns: Math.round(v) })}
          className="w-44"
        />
        <Amount
          label={words.foam}
          unit={units.mm3}
          value={build.foam_mm3}
          onChange={(v) => set({ foam_mm3: v })}
        />
        <Field label={words.bulk} className="w-32">
          {(p) => (
            <Select
              {...p}
              value={build.bulk}
              onChange={(e) => set({ bulk: e.target.value as Build["bulk"] })}
            >
              <Options list={words.bulks} />
            </Select>
          )}
        </Field>
      </div>
      {ask.data ? (
        <div aria-live="polite">
          <table className="w-full max-w-sm">
            <tbody>
              {ask.data.parts.map((part) => (
                <tr key={part.part} className="border-b border-rule">
                  <th scope="row" className="py-1 text-left font-normal">
                    {part.part}
                  </th>
                  <td className="text-right">{part.submerged_g.toFixed(3)} g</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mt-1">
            <b>
              {ask.data.submerged_g.toFixed(3)} g, {units.pace.to(ask.data.sink_m_s).toFixed(1)}{" "}
              {units.pace.label}
            </b>
          </p>
          <p className="text-[0.92rem] text-soft">{ask.data.assumptions}</p>
          <Button
            look="main"
            className="mt-2"
            onClick={() => ask.data && onUse(ask.data.submerged_g, ask.data.sink_m_s)}
          >
            {words.useBuild}
          </Button>
        </div>
      ) : (
        <Button onClick={() => set({})}>{words.calibrate}</Button>
      )}
    </div>
  );
}

export function FlyPart({ rig, onChange, problems }: PartProps) {
  const units = useUnits();
  const [building, setBuilding] = useState<number | null>(null);
  const set = (n: number, part: Partial<TiedFly>) =>
    onChange({ ...rig, flies: rig.flies.map((fly, i) => (i === n ? { ...fly, ...part } : fly)) });
  const add = (fly: Partial<TiedFly>) => {
    const end = leaderLength(rig);
    const at = Math.max(0.1, end - 0.3);
    const made: TiedFly = {
      name: "Fly",
      from_line_m: at,
      dropper_m: 0.12,
      submerged_g: 0.03,
      sink_m_s: 0.06,
      ...fly,
    };
    onChange({ ...rig, flies: [...rig.flies, made].sort((a, b) => a.from_line_m - b.from_line_m) });
  };
  return (
    <Part title={words.flies} open>
      <ol className="space-y-3">
        {rig.flies.map((fly, n) => (
          <li key={n} className="border-l-4 border-take pl-3">
            <div className="flex flex-wrap items-end gap-2">
              <Field
                label={`${String.fromCharCode(65 + n)} · ${words.fly(n + 1, rig.flies.length)}`}
                className="w-44"
              >
                {(p) => (
                  <TextBox
                    {...p}
                    maxLength={TiedFly_name_longest}
                    value={fly.name}
                    onChange={(e) => set(n, { name: e.target.value })}
                  />
                )}
              </Field>
              <Amount
                label={words.from}
                unit={units.length}
                value={fly.from_line_m}
                onChange={(v) => set(n, { from_line_m: v })}
                problem={faultAt(problems, `flies[${n}].from_line_m`)}
              />
              <Amount
                label={words.dropper}
                unit={units.short}
                value={fly.dropper_m}
                onChange={(v) => set(n, { dropper_m: v })}
                problem={faultAt(problems, `flies[${n}].dropper_m`)}
                className="w-32"
              />
              <Amount
                label={words.inWater}
                unit={units.grams}
                value={fly.submerged_g}
                onChange={(v) => set(n, { submerged_g: v })}
                problem={faultAt(problems, `flies[${n}].submerged_g`)}
                className="w-36"
              />
              <Amount
                label={words.falls}
                unit={units.pace}
                value={fly.sink_m_s}
                onChange={(v) => set(n, { sink_m_s: v })}
                problem={faultAt(problems, `flies[${n}].sink_m_s`)}
                className="w-44"
              />
              <Button onClick={() => setBuilding(n)}>{words.build}</Button>
              <Button
                look="quiet"
                aria-label={words.drop(fly.name)}
                onClick={() => onChange({ ...rig, flies: rig.flies.filter((_, i) => i !== n) })}
              >
                ×
              </Button>
            </div>
          </li>
        ))}
      </ol>
      <p className="flex flex-wrap gap-2">
        <Button onClick={() => add({})}>{words.addFly}</Button>
        <Button onClick={() => add({ name: "Split shot", dropper_m: 0, submerged_g: 0.2, sink_m_s: 0.7 })}>
          {words.addShot}
        </Button>
      </p>
      {building !== null && (
        <Sheet onClose={() => setBuilding(null)} title={words.build}>
          <BuildForm
            onUse={(grams, speed) => {
              set(building, { submerged_g: grams, sink_m_s: speed });
              setBuilding(null);
            }}
          />
        </Sheet>
      )}
    </Part>
  );
}
