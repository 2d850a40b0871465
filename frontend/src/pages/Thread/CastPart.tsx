/** How the rig is fished: cast, bed, count, retrieve, slack, the boat. */
import { PACES, type Pace } from "../../lib/paces";
import { useReader } from "../../lib/session";
import { Choice, Tick } from "../../ui/controls";
import { Amount, useUnits } from "./Amount";
import { Part, type PartProps } from "./RigForm";
import { bedOf, faultAt, type RigDoc } from "./rig";
import { words } from "./strings";

type Retrieve = RigDoc["retrieve"];

/** The paces the simulation knows by name, and one's own. */
const KNOWN: readonly string[] = ["static", "hand-twist", "strip-pause", "long-pull", "roly-poly"];
const KINDS: { value: Retrieve["kind"]; label: string }[] = [
  ...PACES.filter((one): one is { value: Retrieve["kind"] & Pace; label: string } =>
    KNOWN.includes(one.value),
  ),
  { value: "custom", label: words.ownPace },
];

function PaceBoxes({ rig, onChange, problems }: PartProps) {
  const units = useUnits();
  const { say } = useReader();
  const pace = rig.retrieve;
  const set = (part: Partial<Retrieve>) => onChange({ ...rig, retrieve: { ...pace, ...part } });
  return (
    <>
      <Choice
        label={words.pace}
        required
        value={pace.kind}
        options={KINDS.map((p) => ({ ...p, label: say(p.label) }))}
        onChange={(v) =>
          v && onChange({ ...rig, retrieve: { kind: v, ...(v === "custom" ? { speed_m_s: 0.1 } : {}) } })
        }
      />
      {pace.kind !== "static" && (
        <div className="flex flex-wrap gap-3">
          <Amount
            label={words.speed}
            unit={units.pace}
            value={pace.speed_m_s}
            onChange={(v) => set({ speed_m_s: v })}
            onEmpty={() => set({ speed_m_s: null })}
            problem={faultAt(problems, "retrieve.speed_m_s", "retrieve")}
            className="w-36"
          />
          <Amount
            label={words.pull}
            unit={units.short}
            value={pace.pull_m}
            onChange={(v) => set({ pull_m: v })}
            onEmpty={() => set({ pull_m: null })}
          />
          <Amount
            label={words.rest}
            unit={units.seconds}
            value={pace.pause_s}
            onChange={(v) => set({ pause_s: v })}
            onEmpty={() => set({ pause_s: null })}
          />
        </div>
      )}
    </>
  );
}

/** The depths worth fishing, to count the seconds in. */
function BandBoxes({ rig, onChange, problems }: PartProps) {
  const units = useUnits();
  const [top, bottom] = rig.target_band_m ?? [null, null];
  const set = (a: number | null | undefined, z: number | null | undefined) =>
    onChange({ ...rig, target_band_m: a == null && z == null ? null : [a ?? 0, z ?? (a ?? 0) + 1] });
  return (
    <div className="flex flex-wrap gap-3">
      <Amount
        label={words.bandTop}
        unit={units.length}
        value={top}
        onChange={(v) => set(v, bottom)}
        onEmpty={() => set(null, null)}
        problem={faultAt(problems, "target_band_m")}
        className="w-44"
      />
      <Amount
        label={words.bandBottom}
        unit={units.length}
        value={bottom}
        onChange={(v) => set(top, v)}
        onEmpty={() => set(null, null)}
      />
    </div>
  );
}

export function CastPart({ rig, onChange, problems }: PartProps) {
  const units = useUnits();
  const bed = bedOf(rig);
  const slopes = bed.length > 1;
  const near = bed[0]?.[1] ?? 6;
  const far = bed.at(-1)?.[1] ?? near;
  const level = (depth: number) => onChange({ ...rig, bed: null, water_depth_m: depth });
  const slope = (a: number, z: number) =>
    onChange({
      ...rig,
      water_depth_m: null,
      bed: [
        [0, a],
        [Math.max(rig.cast_m * 1.1, 1), z],
      ],
    });
  const depthFault = faultAt(problems, "water_depth_m", "bed[0][1]", "bed[1][1]", "bed[1][0]");
  return (
    <Part title={words.cast} open>
      <div className="flex flex-wrap gap-3">
        <Amount
          label={words.castLength}
          unit={units.length}
          value={rig.cast_m}
          onChange={(v) => onChange({ ...rig, cast_m: v })}
          problem={faultAt(problems, "cast_m")}
          className="w-44"
        />
        <Amount
          label={words.count}
          unit={units.seconds}
          value={rig.countdown_s}
          onChange={(v) => onChange({ ...rig, countdown_s: v })}
          problem={faultAt(problems, "countdown_s")}
        />
        {slopes ? (
          <>
            <Amount
              label={words.near}
              unit={units.length}
              value={near}
              onChange={(v) => slope(v, far)}
              problem={depthFault}
              className="w-40"
            />
            <Amount
              label={words.far}
              unit={units.length}
              value={far}
              onChange={(v) => slope(near, v)}
              className="w-44"
            />
          </>
        ) : (
          <Amount
            label={words.depth}
            unit={units.length}
            value={near}
            onChange={level}
            problem={depthFault}
            className="w-32"
          />
        )}
      </div>
      <Tick
        label={words.slope}
        checked={slopes}
        onChange={(on) => (on ? slope(Math.max(1, near * 0.4), near) : level(far))}
      />
      <PaceBoxes rig={rig} onChange={onChange} problems={problems} />
      <BandBoxes rig={rig} onChange={onChange} problems={problems} />
      <div className="flex flex-wrap gap-3">
        <Amount
          label={words.slack}
          unit={units.share}
          value={rig.slack}
          onChange={(v) => onChange({ ...rig, slack: v })}
          problem={faultAt(problems, "slack")}
        />
        <Amount
          label={words.temperature}
          unit={units.temperature}
          value={rig.water_temperature_c}
          onChange={(v) => onChange({ ...rig, water_temperature_c: v })}
          problem={faultAt(problems, "water_temperature_c")}
          className="w-40"
        />
        {!rig.float && (
          <Amount
            label={words.boat}
            unit={units.pace}
            value={rig.drift_m_s ?? 0}
            onChange={(v) => onChange({ ...rig, drift_m_s: v === 0 ? null : v })}
            problem={faultAt(problems, "drift_m_s")}
            className="w-64"
          />
        )}
      </div>
    </Part>
  );
}
