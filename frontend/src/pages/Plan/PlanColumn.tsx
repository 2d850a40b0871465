/** The cord beside the plan: the set-up shown and its path, or what one factor does, or what is tried. */
import type { Schemas } from "../../api/client";
import { SetUpLayer } from "../../column/layers";
import { FactorLayer, PathLayer, TriedLayer } from "../../column/planLayers";
import { ReadingColumn } from "../../components/ReadingColumn";
import { beliefAt } from "../../lib/cord";
import { useReading } from "../../lib/reading";
import type { Water } from "../../lib/waters";
import { more } from "./moreStrings";

interface Props {
  water: Water;
  ring: number;
  onRing: (depthM: number) => void;
  index: number;
  onChoose: (at: number) => void;
  factor: Schemas["FactorOut"] | undefined;
  tried: Schemas["PlanAnswer"] | undefined;
}

export default function PlanColumn({ water, ring, onRing, index, onChoose, factor, tried }: Props) {
  const { plan } = useReading("plan");
  const active = plan?.set_ups[index];
  // A factor and what is tried are of the place planned for.
  const place = factor || tried ? plan?.belief.chosen : active?.place;
  const belief = plan ? beliefAt(plan, place) : undefined;
  const path = active && !factor && !tried;
  return (
    <ReadingColumn
      water={water}
      ring={ring}
      onRing={onRing}
      place={place}
      under={path && <PathLayer tracks={active.tracks ?? []} countS={active.count_s} />}
    >
      {factor && belief && (
        <FactorLayer
          factor={factor}
          depths={belief.depths_m}
          word={more.factorWords[factor.name] ?? factor.name}
        />
      )}
      {tried && belief && <TriedLayer plan={tried} place={belief.place} />}
      {plan && <SetUpLayer setUps={plan.set_ups} place={place} chosen={index} onChoose={onChoose} />}
    </ReadingColumn>
  );
}
