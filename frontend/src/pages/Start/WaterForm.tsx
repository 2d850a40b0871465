/** A water: name, where, how deep, its places, the rules as read. */
import type { Problem } from "../../api/client";
import {
  PlaceBody_name_longest,
  WaterBody_name_longest,
  WaterBody_rules_source_longest,
} from "../../api/generated/limits";
import { type Settings, useReader } from "../../lib/session";
import { Button, Choice, Fault, Field, NumberBox, Select, TextBox, Tick } from "../../ui/controls";
import { MoreAbout } from "./MoreAbout";
import { words } from "./strings";
import { emptyPlace, type PlaceDraft, type Species, type WaterDraft } from "./waterDraft";

interface Props {
  value: WaterDraft;
  onChange: (value: WaterDraft) => void;
  problemAt: (path: string) => Problem | undefined;
  /** The units it is typed in: on the first page they are not kept yet. */
  settings: Settings;
  /** Only what a first plan needs stands open; the rest waits under "Later". */
  short?: boolean;
}

const POINTS = ["N", "NE", "E", "SE", "S", "SW", "W", "NW"];

function Where({ value, onChange, problemAt }: Props) {
  const set = (part: Partial<WaterDraft>) => onChange({ ...value, ...part });
  return (
    <div className="space-y-2">
      <Choice
        label={words.where}
        required
        value={value.byPosition ? "position" : value.hemisphere}
        options={[
          { value: "north", label: words.north },
          { value: "south", label: words.south },
          { value: "position", label: words.byPosition },
        ]}
        onChange={(v) =>
          set(
            v === "position"
              ? { byPosition: true }
              : { byPosition: false, hemisphere: v as "north" | "south" },
          )
        }
      />
      {value.byPosition && (
        <div>
          <div className="flex flex-wrap gap-3">
            <Field label={words.latitude} problem={problemAt("latitude_deg")} className="w-36">
              {(p) => (
                <NumberBox
                  {...p}
                  value={value.latitude}
                  onChange={(e) => set({ latitude: e.target.value })}
                />
              )}
            </Field>
            <Field label={words.longitude} problem={problemAt("longitude_deg")} className="w-36">
              {(p) => (
                <NumberBox
                  {...p}
                  value={value.longitude}
                  onChange={(e) => set({ longitude: e.target.value })}
                />
              )}
            </Field>
          </div>
          <p className="text-[0.92rem] text-soft">{words.positionHint}</p>
        </div>
      )}
    </div>
  );
}

function PlaceRow({
  place,
  index,
  unit,
  onChange,
  onRemove,
  problemAt,
  short,
}: {
  place: PlaceDraft;
  index: number;
  unit: string;
  onChange: (p: PlaceDraft) => void;
  onRemove: () => void;
  problemAt: Props["problemAt"];
  short: boolean;
}) {
  const set = (part: Partial<PlaceDraft>) => onChange({ ...place, ...part });
  const n = index + 1;
  const at = (field: string) => problemAt(`places[${index}].${field}`);
  const fault = ["name", "depth_min_m", "depth_max_m"].map(at).find(Boolean) ?? problemAt(`places[${index}]`);
  return (
    <li className="knot border-b border-rule py-2">
      <div className="flex flex-wrap items-end gap-2">
        <TextBox
          aria-label={`${words.place(n)}: ${words.name}`}
          placeholder={words.place(n)}
          className="!w-48"
          maxLength={PlaceBody_name_longest}
          aria-invalid={at("name") ? true : undefined}
          value={place.name}
          onChange={(e) => set({ name: e.target.value })}
        />
        <Select
          aria-label={`${words.place(n)}: ${words.kind}`}
          className="!w-36"
          value={place.kind}
          onChange={(e) => set({ kind: e.target.value as PlaceDraft["kind"] })}
        >
          {words.kinds.map((kind) => (
            <option key={kind.value} value={kind.value}>
              {kind.label}
            </option>
          ))}
        </Select>
        <span className="flex items-center gap-1.5">
          <NumberBox
            aria-label={`${words.place(n)}: ${words.from}`}
            aria-invalid={at("depth_min_m") ? true : undefined}
            className="w-16"
            value={place.from}
            onChange={(e) => set({ from: e.target.value })}
          />
          {words.to}
          <NumberBox
            aria-label={`${words.place(n)}: ${words.to}`}
            unit={unit}
            aria-invalid={at("depth_max_m") ? true : undefined}
            className="w-24"
            value={place.to}
            onChange={(e) => set({ to: e.target.value })}
          />
        </span>
        {!short && (
          <Select
            aria-label={`${words.place(n)}: ${words.faces}`}
            title={words.faces}
            className="!w-20"
            value={place.facing}
            onChange={(e) => set({ facing: e.target.value })}
          >
            <option value="">{words.facesAny}</option>
            {[
              ...new Set([...POINTS.map((_, i) => String(i * 45)), ...(place.facing ? [place.facing] : [])]),
            ].map((deg) => (
              <option key={deg} value={deg}>
                {POINTS[Number(deg) / 45] ?? `${deg}°`}
              </option>
            ))}
          </Select>
        )}
        <Button
          look="quiet"
          className="!px-2 text-xl !no-underline"
          aria-label={words.removePlace(n)}
          onClick={onRemove}
        >
          ×
        </Button>
      </div>
      {fault && <Fault problem={fault} />}
    </li>
  );
}

function Places({ value, onChange, problemAt, settings, short = false }: Props) {
  const set = (places: PlaceDraft[]) => onChange({ ...value, places });
  const whole = problemAt("places");
  return (
    <fieldset>
      <legend className="font-semibold">{words.places}</legend>
      <p className="text-[0.92rem] text-soft">{words.placesHint}</p>
      <ol className="corded my-1">
        {value.places.map((place, i) => (
          <PlaceRow
            key={place.id}
            place={place}
            index={i}
            unit={settings.depth_unit}
            problemAt={problemAt}
            short={short}
            onChange={(next) => set(value.places.map((p, k) => (k === i ? next : p)))}
            onRemove={() => set(value.places.filter((_, k) => k !== i))}
          />
        ))}
      </ol>
      {whole && <Fault problem={whole} />}
      <Button onClick={() => set([...value.places, emptyPlace()])}>{words.addPlace}</Button>
    </fieldset>
  );
}

function FliesAllowed({ value, onChange }: Pick<Props, "value" | "onChange">) {
  return (
    <Choice
      label={words.maxFlies}
      value={value.maxFlies}
      options={["1", "2", "3", "4"].map((n) => ({ value: n, label: n }))}
      onChange={(maxFlies) => onChange({ ...value, maxFlies })}
    />
  );
}

function Rules({ value, onChange, problemAt, settings, short }: Props) {
  const { say } = useReader();
  const set = (part: Partial<WaterDraft>) => onChange({ ...value, ...part });
  return (
    <fieldset className="space-y-2">
      <legend className="font-semibold">{words.rules}</legend>
      <p className="text-[0.92rem] text-soft">{words.rulesHint}</p>
      {!short && <FliesAllowed value={value} onChange={onChange} />}
      <Choice
        label={words.release}
        required
        value={value.release}
        options={words.releases as { value: WaterDraft["release"]; label: string }[]}
        onChange={(v) => v && set({ release: v })}
      />
      <div className="flex flex-wrap gap-x-6">
        <Tick label={words.barbless} checked={value.barbless} onChange={(barbless) => set({ barbless })} />
        <Tick
          label={say(words.noFloats)}
          checked={value.noFloats}
          onChange={(noFloats) => set({ noFloats })}
        />
        <Tick
          label={words.noDroppers}
          checked={value.noDroppers}
          onChange={(noDroppers) => set({ noDroppers })}
        />
        <Tick
          label={words.noSinking}
          checked={value.noSinking}
          onChange={(noSinking) => set({ noSinking })}
        />
      </div>
      <div className="flex flex-wrap gap-3">
        <Field label={words.stopAbove} problem={problemAt("rules.stop_above_c")} className="w-32">
          {(p) => (
            <NumberBox
              {...p}
              unit={settings.temperature_unit === "c" ? "°C" : "°F"}
              value={value.stopAbove}
              onChange={(e) => set({ stopAbove: e.target.value })}
            />
          )}
        </Field>
        <Field label={words.source} className="min-w-56 flex-1">
          {(p) => (
            <TextBox
              {...p}
              maxLength={WaterBody_rules_source_longest}
              value={value.source}
              onChange={(e) => set({ source: e.target.value })}
            />
          )}
        </Field>
      </div>
    </fieldset>
  );
}

function Stocked({ value, onChange, problemAt }: Props) {
  return (
    <Field label={words.stocked} hint={words.stockedHint} problem={problemAt("stocked_on")} className="w-56">
      {(p) => (
        <TextBox
          {...p}
          type="date"
          value={value.stockedOn}
          onChange={(e) => onChange({ ...value, stockedOn: e.target.value })}
        />
      )}
    </Field>
  );
}

function Kinds({ value, onChange }: Props) {
  const toggle = (species: Species, on: boolean) => {
    const next = on ? [...value.species, species] : value.species.filter((s) => s !== species);
    if (next.length > 0) onChange({ ...value, species: next });
  };
  return (
    <fieldset>
      <legend className="font-semibold">{words.species}</legend>
      <div className="flex flex-wrap gap-x-6">
        {(Object.keys(words.speciesOptions) as Species[]).map((species) => (
          <Tick
            key={species}
            label={words.speciesOptions[species]}
            checked={value.species.includes(species)}
            onChange={(on) => toggle(species, on)}
          />
        ))}
      </div>
    </fieldset>
  );
}

/** What a first plan does not need. */
function Rest(props: Props) {
  return (
    <>
      <Where {...props} />
      <Kinds {...props} />
      <Rules {...props} />
      <MoreAbout {...props} />
    </>
  );
}

export function WaterForm(props: Props) {
  const { value, onChange, problemAt, settings, short = false } = props;
  const set = (part: Partial<WaterDraft>) => onChange({ ...value, ...part });
  const rest = problemAt("");
  return (
    <div className="space-y-5">
      <div className="flex flex-wrap gap-4">
        <Field label={words.name} problem={problemAt("name")} className="w-72 max-w-full">
          {(p) => (
            <TextBox
              {...p}
              maxLength={WaterBody_name_longest}
              value={value.name}
              onChange={(e) => set({ name: e.target.value })}
            />
          )}
        </Field>
        <Field label={words.maxDepth} problem={problemAt("max_depth_m")} className="w-40">
          {(p) => (
            <NumberBox
              {...p}
              unit={settings.depth_unit}
              value={value.maxDepth}
              onChange={(e) => set({ maxDepth: e.target.value })}
            />
          )}
        </Field>
        {!short && <Stocked {...props} />}
      </div>
      <Places {...props} />
      {short ? (
        <>
          <FliesAllowed value={value} onChange={onChange} />
          <details className="border-t border-rule">
            <summary className="min-h-11 cursor-pointer py-2 font-semibold">{words.laterWater}</summary>
            <div className="space-y-5">
              <Stocked {...props} />
              <Rest {...props} />
            </div>
          </details>
        </>
      ) : (
        <Rest {...props} />
      )}
      {rest && <Fault problem={rest} />}
    </div>
  );
}
