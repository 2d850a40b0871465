/** The plan beside what happened, in two sentences. */

import { chosenBelief } from "../../lib/cord";
import { useReader } from "../../lib/session";
import { bandText, depthText } from "../../lib/units";
import { type Outing, TAKE_KINDS } from "../../offline/overlay";
import { words } from "./strings";

function middle(values: number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const low = sorted[Math.floor((sorted.length - 1) / 2)] ?? 0;
  const high = sorted[Math.ceil((sorted.length - 1) / 2)] ?? 0;
  return (low + high) / 2;
}

export function Compared({ outing }: { outing: Outing }) {
  const { settings } = useReader();
  const unit = settings.depth_unit;
  const belief = outing.plan ? chosenBelief(outing.plan) : undefined;
  const half = belief?.bands.find((b) => b.share === 0.5);
  const depths = outing.events
    .filter((e) => TAKE_KINDS.includes(e.kind))
    .map((e) => e.depth_m)
    .filter((d): d is number => d !== null && d !== undefined);
  const inside = half ? depths.filter((d) => d >= half.top_m && d <= half.bottom_m).length : 0;
  return (
    <section aria-labelledby="compared">
      <h2 id="compared">{words.plan}</h2>
      {half && belief ? (
        <p>{words.planned(bandText(unit, half.top_m, half.bottom_m), belief.place)}</p>
      ) : (
        <p>{words.noPlan}</p>
      )}
      <p>
        {depths.length === 0 ? words.noTakes : words.happened(depthText(unit, middle(depths)), depths.length)}{" "}
        {half && depths.length > 0 && words.inside(inside, depths.length)}
      </p>
    </section>
  );
}
