/** The parts of the rig: line, leader, float and the cast. Each change makes a new document. */
import type { ReactNode } from "react";
import type { Problem, Schemas } from "../../api/client";
import { useKit } from "../../lib/kit";
import { useReader } from "../../lib/session";
import { Button, Choice, Field, Select } from "../../ui/controls";
import { Amount, useUnits } from "./Amount";
import { faultAt, leaderLength, type Piece, type RigDoc, START } from "./rig";
import { words } from "./strings";

export interface PartProps {
  rig: RigDoc;
  onChange: (rig: RigDoc) => void;
  problems: Problem[];
}

export function Part({
  title,
  open = false,
  children,
}: {
  title: string;
  open?: boolean;
  children: ReactNode;
}) {
  return (
    <details open={open} className="border-t-2 border-rule py-1">
      <summary className="min-h-11 cursor-pointer py-2 text-[1.1rem] font-bold">{title}</summary>
      <div className="space-y-3 pb-3">{children}</div>
    </details>
  );
}

type Line = RigDoc["line"];

/** What is usually printed on the box, to start from [in/s]. */
const USUAL_IPS: Record<Line["family"], number> = {
  floating: 0,
  hover: 0.5,
  intermediate: 1.2,
  sinking: 3,
  "sink-tip": 2,
};

export function LinePart({ rig, onChange, problems }: PartProps) {
  const units = useUnits();
  const { say } = useReader();
  const kit = useKit();
  const line = rig.line;
  const set = (part: Partial<Line>) => onChange({ ...rig, line: { ...line, ...part } });
  const family = (next: Line["family"]) => {
    const label_ips = USUAL_IPS[next];
    const tip_length_m = next === "sink-tip" ? (line.tip_length_m ?? 3) : null;
    set({ family: next, label_ips, tip_length_m, measured_m_s: null });
  };
  const own = (id: string) => {
    const found = kit.data?.lines.find((one) => one.id === id);
    if (!found) return;
    const { family: f, label_ips, weight_class, density_profile, measured_m_s } = found;
    const tip = found.tip_length_m > 0 ? found.tip_length_m : null;
    onChange({
      ...rig,
      line: {
        family: f,
        label_ips,
        weight_class,
        density_profile,
        measured_m_s,
        tip_length_m: tip,
        length_m: 30,
      },
    });
  };
  return (
    <Part title={words.line} open>
      {(kit.data?.lines.length ?? 0) > 0 && (
        <Field label={words.fromKit} className="max-w-xs">
          {(p) => (
            <Select {...p} value="" onChange={(e) => own(e.target.value)}>
              <option value="">{words.ownLine}</option>
              {kit.data?.lines.map((one) => (
                <option key={one.id} value={one.id}>
                  {say(one.title)} #{one.weight_class}
                </option>
              ))}
            </Select>
          )}
        </Field>
      )}
      <Choice
        label={words.family}
        required
        value={line.family}
        options={words.families as { value: Line["family"]; label: string }[]}
        onChange={(v) => v && family(v)}
      />
      <div className="flex flex-wrap gap-3">
        {line.family !== "floating" && (
          <Amount
            label={words.rate}
            unit={units.rate}
            value={line.label_ips}
            onChange={(v) => set({ label_ips: v })}
            problem={faultAt(problems, "line.label_ips")}
            className="w-36"
          />
        )}
        <Field label={words.weight} className="w-28">
          {(p) => (
            <Select
              {...p}
              value={line.weight_class}
              onChange={(e) => set({ weight_class: Number(e.target.value) })}
            >
              {[3, 4, 5, 6, 7, 8, 9].map((n) => (
                <option key={n} value={n}>
                  {n}
                </option>
              ))}
            </Select>
          )}
        </Field>
        {line.family === "sink-tip" && (
          <Amount
            label={words.tip}
            unit={units.length}
            value={line.tip_length_m}
            onChange={(v) => set({ tip_length_m: v })}
            problem={faultAt(problems, "line.tip_length_m")}
          />
        )}
      </div>
      {(line.family === "sinking" || line.family === "intermediate") && (
        <Choice
          label={words.profile}
          required
          value={line.density_profile}
          options={words.profiles as { value: Line["density_profile"]; label: string }[]}
          onChange={(v) => v && set({ density_profile: v })}
        />
      )}
      {line.measured_m_s != null && (
        <p>
          {words.measured(`${units.pace.to(line.measured_m_s).toFixed(1)} ${units.pace.label}`)}{" "}
          <Button look="quiet" onClick={() => set({ measured_m_s: null })}>
            {words.forget}
          </Button>
        </p>
      )}
    </Part>
  );
}

export function LeaderPart({ rig, onChange, problems, children }: PartProps & { children?: ReactNode }) {
  const units = useUnits();
  const set = (n: number, part: Partial<Piece>) =>
    onChange({ ...rig, leader: rig.leader.map((p, i) => (i === n ? { ...p, ...part } : p)) });
  const last: Piece = rig.leader.at(-1) ?? { length_m: 1, diameter_mm: 0.2, material: "fluorocarbon" };
  return (
    <Part title={words.leader}>
      <ol className="space-y-2">
        {rig.leader.map((piece, n) => (
          <li key={n} className="flex flex-wrap items-end gap-2">
            <Amount
              label={`${words.piece(n + 1)}: ${words.length}`}
              unit={units.length}
              value={piece.length_m}
              onChange={(v) => set(n, { length_m: v })}
              problem={faultAt(problems, `leader[${n}].length_m`)}
              className="w-36"
            />
            <Amount
              label={words.thickness}
              unit={units.mm}
              value={piece.diameter_mm}
              onChange={(v) => set(n, { diameter_mm: v })}
              problem={faultAt(problems, `leader[${n}].diameter_mm`)}
            />
            <Field label={words.material} className="w-36">
              {(p) => (
                <Select
                  {...p}
                  value={piece.material}
                  onChange={(e) => set(n, { material: e.target.value as Piece["material"] })}
                >
                  {words.materials.map((m) => (
                    <option key={m.value} value={m.value}>
                      {m.label}
                    </option>
                  ))}
                </Select>
              )}
            </Field>
            <Amount
              label={words.sinksItself}
              unit={units.pace}
              value={piece.sink_m_s}
              onChange={(v) => set(n, { sink_m_s: v })}
              onEmpty={() => set(n, { sink_m_s: null })}
              problem={faultAt(problems, `leader[${n}].sink_m_s`)}
              className="w-36"
            />
            <Amount
              label={words.strain}
              unit={units.pounds}
              value={piece.strain_lb}
              onChange={(v) => set(n, { strain_lb: v })}
              onEmpty={() => set(n, { strain_lb: null })}
              problem={faultAt(problems, `leader[${n}].strain_lb`)}
              className="w-40"
            />
            <Button
              look="quiet"
              aria-label={words.drop(words.piece(n + 1))}
              onClick={() => onChange({ ...rig, leader: rig.leader.filter((_, i) => i !== n) })}
            >
              ×
            </Button>
          </li>
        ))}
      </ol>
      <p className="flex flex-wrap items-center gap-3">
        <Button onClick={() => onChange({ ...rig, leader: [...rig.leader, { ...last, length_m: 0.6 }] })}>
          {words.addPiece}
        </Button>
        <span className="text-soft">
          {units.length.to(leaderLength(rig)).toFixed(2)} {units.length.label} {words.total}
        </span>
      </p>
      {children}
    </Part>
  );
}

type Held = Schemas["FloatDoc"];

export function FloatPart({ rig, onChange, problems, children }: PartProps & { children?: ReactNode }) {
  const units = useUnits();
  const { say } = useReader();
  const held = rig.float ?? null;
  const kind = held?.type ?? "none";
  const set = (part: Partial<Held>) => held && onChange({ ...rig, float: { ...held, ...part } });
  const choose = (next: Held["type"] | "none" | "") => {
    if (next === "" || next === kind) return;
    if (next === "none") {
      const { retrieve, countdown_s } = START;
      return onChange({ ...rig, float: null, drift_m_s: null, retrieve, countdown_s });
    }
    const from = Math.min(0.9144, leaderLength(rig) / 3);
    const line: Line = {
      ...rig.line,
      family: "floating",
      label_ips: 0,
      tip_length_m: null,
      measured_m_s: null,
    };
    const float: Held = held
      ? { ...held, type: next }
      : { type: next, line: "slack", from_line_m: from, buoyancy_g: 1.5 };
    return onChange({ ...rig, float, line, retrieve: { kind: "static" }, countdown_s: 0 });
  };
  return (
    <Part title={say(words.float)} open={held !== null}>
      <Choice
        label={say(words.float)}
        required
        value={kind as Held["type"] | "none"}
        options={words.floats as { value: Held["type"] | "none"; label: string }[]}
        onChange={choose}
      />
      {held && (
        <>
          <Choice
            label={say(words.floatLine)}
            required
            value={held.line}
            options={words.floatLines as { value: Held["line"]; label: string }[]}
            onChange={(v) => v && set({ line: v })}
          />
          <div className="flex flex-wrap gap-3">
            <Amount
              label={words.floatFrom}
              unit={units.length}
              value={held.from_line_m}
              onChange={(v) => set({ from_line_m: v })}
              problem={faultAt(problems, "float.from_line_m")}
            />
            <Amount
              label={words.lift}
              unit={units.grams}
              value={held.buoyancy_g}
              onChange={(v) => set({ buoyancy_g: v })}
              problem={faultAt(problems, "float.buoyancy_g")}
            />
            <Amount
              label={words.drift}
              unit={units.pace}
              value={rig.drift_m_s ?? 0}
              onChange={(v) => onChange({ ...rig, drift_m_s: v === 0 ? null : v })}
              problem={faultAt(problems, "drift_m_s")}
              className="w-48"
            />
          </div>
        </>
      )}
      {children}
    </Part>
  );
}
