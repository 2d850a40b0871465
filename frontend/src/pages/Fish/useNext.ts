/** What to do next, asked anew once a tap has arrived and every minute; the belief it comes from, for the cord. */

import { keepPreviousData, useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { also, routes } from "../../api/routes";
import type { Outing, Spell } from "../../offline/overlay";
import { useArrived } from "./useArrived";

export type Step = Schemas["StepOut"];
type Place = Schemas["PlaceBeliefOut"];

const ASK_MS = 60_000;

export function useNext(outing: Outing, spell: Spell) {
  // A tap or a change asks anew; the server lays everything fished so far on the plan.
  const so = [
    outing.events.length,
    outing.events.map((e) => e.kind).join(),
    spell.id,
    spell.depth_m,
    spell.pace,
  ];
  const arrived = useArrived(outing.id);
  const question = routes.queryOptions(
    "get",
    "/api/outings/{outing_id}/next",
    { params: { path: { outing_id: outing.id } } },
    { enabled: arrived, placeholderData: keepPreviousData, refetchInterval: ASK_MS, retry: 1 },
  );
  return useQuery(also(question, ...so));
}

/** The belief of now at a place, as the cord draws beliefs. */
export function liveBelief(
  advice: Schemas["AdviseAnswer"] | undefined,
  place: string,
  plan: Place | undefined,
): Place | undefined {
  const now = advice?.belief.find((one) => one.place === place);
  if (!advice || !now || !plan || plan.place !== place) return plan;
  const cell = now.cell_m ?? 0.2;
  return {
    ...plan,
    depths_m: now.mass.map((_, i) => (i + 0.5) * cell),
    mass: now.mass,
    bands:
      advice.place === place
        ? [{ share: 0.5, top_m: advice.half_top_m, bottom_m: advice.half_bottom_m }]
        : plan.bands,
  };
}

/** A step as the stretch that it begins. */
export function spellOf(step: Step, outing: Outing): Partial<Schemas["SpellBody"]> {
  const index = (outing.plan?.set_ups ?? []).findIndex((one) => one.key === step.set_up);
  return {
    place: step.place,
    method: step.method as Schemas["SpellBody"]["method"],
    title: step.title,
    line_title: step.line_title,
    depth_m: step.depth_m,
    low_m: step.low_m,
    high_m: step.high_m,
    count_s: step.count_s,
    pace: step.pace as Schemas["SpellBody"]["pace"],
    flies: step.flies,
    set_up_index: index < 0 ? null : index,
  };
}
