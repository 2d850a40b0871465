/** The column for the water in hand: temperature, light, belief, and the ring to take hold of. */
import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { Column } from "../column/Column";
import { Hold } from "../column/Hold";
import { BeliefLayer, LightLayer, TemperatureLayer } from "../column/layers";
import { beliefAt, rippleOf } from "../lib/cord";
import { useReading } from "../lib/reading";
import { useReader } from "../lib/session";
import { bandText, temperatureText } from "../lib/units";
import type { Water } from "../lib/waters";
import { words } from "./pictureWords";

function nearestTemperature(curve: Schemas["WaterMeaning"]["temperature"], depthM: number): number | null {
  if (!curve) return null;
  let best: number | null = null;
  let gap = Number.POSITIVE_INFINITY;
  for (const { depth_m: d, temperature_c: t } of curve.points) {
    if (Math.abs(d - depthM) < gap) {
      gap = Math.abs(d - depthM);
      best = t;
    }
  }
  return best;
}

interface Props {
  water: Water;
  ring: number;
  onRing: (depthM: number) => void;
  /** Whose belief is drawn; the place planned for where none is named. */
  place?: string;
  /** Drawn below the temperatures, so that their figures are not struck through. */
  under?: ReactNode;
  children?: ReactNode;
}

export function ReadingColumn({ water, ring, onRing, place, under, children }: Props) {
  const { plan, drawn } = useReading("plan", "drawn");
  const { settings } = useReader();
  const unit = settings.depth_unit;
  const belief = plan ? beliefAt(plan, place) : undefined;
  const bedM = belief?.bed_m ?? Math.min(water.max_depth_m, 10);
  const t = plan ? nearestTemperature(plan.water.temperature, ring) : null;
  const half = belief?.bands.find((b) => b.share === 0.5);
  const summary = half
    ? words.columnAt(belief?.place ?? "", bandText(unit, half.top_m, half.bottom_m))
    : words.column;
  return (
    <Column bedM={bedM} unit={unit} ripple={rippleOf(drawn.wind_m_s)} summary={summary} className="h-full">
      {belief && <BeliefLayer belief={belief} />}
      {plan && <LightLayer comfortM={plan.water.light_comfort_m} />}
      {under}
      {plan?.water.temperature && (
        <TemperatureLayer
          curve={plan.water.temperature}
          read={drawn.profile ?? []}
          unit={settings.temperature_unit}
          thermoclineM={plan.water.thermocline_m}
        />
      )}
      {children}
      <Hold
        depthM={Math.min(ring, bedM)}
        label={words.ring}
        note={t === null ? undefined : temperatureText(settings.temperature_unit, t)}
        onChange={onRing}
      />
    </Column>
  );
}
