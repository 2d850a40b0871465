/** The column on the pages about the water: what was read and what it means, layer by layer, each switched on and off. */
import { type ReactNode, useState } from "react";
import { Column } from "../column/Column";
import { Hold } from "../column/Hold";
import { BeliefLayer, LightLayer, TemperatureLayer } from "../column/layers";
import { FoodLayer, OpenLayer, OxygenLayer, SteepLayer } from "../column/waterLayers";
import { chosenBelief, rippleOf } from "../lib/cord";
import type { Meaning } from "../lib/meaning";
import { useBoxes, useReading } from "../lib/reading";
import { useReader } from "../lib/session";
import { load, save } from "../lib/store";
import { depthText, temperatureText } from "../lib/units";
import type { Water } from "../lib/waters";
import { words } from "./pictureWords";

export type CordLayer = "temperature" | "oxygen" | "open" | "light" | "food" | "belief";
const ALL: CordLayer[] = ["temperature", "oxygen", "open", "light", "food", "belief"];

export interface MeaningColumnProps {
  water: Water;
  meaning: Meaning | undefined;
  /** The layers shown at first on this page; the choice is kept for each page on this device. */
  page: string;
  first: CordLayer[];
  ring: number;
  onRing: (depthM: number) => void;
  children?: ReactNode;
}

function useLayers(page: string, first: CordLayer[]) {
  const [shown, setShown] = useState<CordLayer[]>(() => load(`cord:${page}`, first));
  const toggle = (layer: CordLayer) => {
    const next = shown.includes(layer) ? shown.filter((l) => l !== layer) : [...shown, layer];
    setShown(next);
    save(`cord:${page}`, next);
  };
  return { shown, toggle };
}

/** What is known at the ring, in words. */
function noteAt(meaning: Meaning | undefined, depthM: number, unit: "c" | "f"): string | undefined {
  if (!meaning) return undefined;
  const { depths_m: z, temperature_c: t, oxygen_mg_l: o, light_share: light } = meaning.curves;
  const i = z.reduce(
    (best, d, k) => (Math.abs(d - depthM) < Math.abs((z[best] ?? 0) - depthM) ? k : best),
    0,
  );
  const parts = t ? [temperatureText(unit, t[i] ?? 0)] : [];
  const mg = o?.[i];
  if (mg !== undefined) parts.push(`${meaning.oxygen?.measured ? "" : "about "}${mg.toFixed(1)} mg/L`);
  parts.push(words.lightLeft(Math.round(100 * (light[i] ?? 0))));
  return parts.join(", ");
}

export default function MeaningColumn({
  water,
  meaning,
  page,
  first,
  ring,
  onRing,
  children,
}: MeaningColumnProps) {
  const { plan, drawn } = useReading("plan", "drawn");
  const { draft } = useBoxes("place");
  const { settings } = useReader();
  const { shown, toggle } = useLayers(page, first);
  const unit = settings.depth_unit;
  const belief = plan ? chosenBelief(plan) : undefined;
  const bedM = meaning?.bed_m ?? belief?.bed_m ?? Math.min(water.max_depth_m, 10);
  const on = (layer: CordLayer) => shown.includes(layer);
  const place = draft.place || plan?.belief.chosen;
  const food = meaning?.food.here.find((h) => h.place === place) ?? meaning?.food.here[0];
  const points = (meaning?.curves.depths_m ?? []).map((d, i) => ({
    depth_m: d,
    temperature_c: meaning?.curves.temperature_c?.[i] ?? 0,
  }));
  return (
    <div className="relative flex h-full flex-col">
      <Column
        bedM={bedM}
        unit={unit}
        ripple={meaning?.wind?.ripple ?? rippleOf(drawn.wind_m_s)}
        summary={meaning ? meaning.layers.sentence : words.column}
        className="min-h-0 flex-1"
      >
        {meaning && on("temperature") && <SteepLayer layers={meaning.layers} />}
        {belief && on("belief") && <BeliefLayer belief={belief} quiet />}
        {meaning && on("food") && food && (
          <FoodLayer density={food.density} depths={meaning.curves.depths_m} />
        )}
        {meaning && on("oxygen") && <OxygenLayer curves={meaning.curves} />}
        {meaning && on("light") && <LightLayer comfortM={meaning.light.comfort_m} />}
        {meaning?.curves.temperature_c && on("temperature") && (
          <TemperatureLayer
            curve={{ points, measured_to_m: meaning.curves.measured_to_m ?? 0 }}
            read={drawn.profile ?? []}
            unit={settings.temperature_unit}
            thermoclineM={meaning.layers.state === "layered" ? (meaning.layers.main?.depth_m ?? null) : null}
          />
        )}
        {meaning && on("open") && <OpenLayer species={meaning.species} words={words.species} />}
        {children}
        <Hold
          depthM={Math.min(ring, bedM)}
          label={words.ring}
          note={noteAt(meaning, ring, settings.temperature_unit) ?? depthText(unit, ring)}
          onChange={onRing}
        />
      </Column>
      <fieldset className="flex min-w-0 flex-wrap gap-1 border-t-2 border-ink bg-paper px-2 py-1 max-wide:flex-nowrap max-wide:overflow-x-auto">
        <legend className="sr-only">{words.onCord}</legend>
        {ALL.map((layer) => (
          <button
            key={layer}
            type="button"
            aria-pressed={on(layer)}
            onClick={() => toggle(layer)}
            className="min-h-9 shrink-0 rounded border-2 border-edge px-1.5 text-[0.85rem] aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-raised max-wide:min-h-10"
          >
            {words.cordLayers[layer]}
          </button>
        ))}
      </fieldset>
    </div>
  );
}
