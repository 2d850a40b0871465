/** What the pages and the picture of the cord both ask: the belief at the place, how rough the water is, the ring. */
import { useState } from "react";
import type { Schemas } from "../api/client";

export function rippleOf(windMs: number | null | undefined): "calm" | "ripple" | "wave" | "unknown" {
  if (windMs === null || windMs === undefined) return "unknown";
  return windMs < 1 ? "calm" : windMs < 5.5 ? "ripple" : "wave";
}

type Plan = Schemas["PlanAnswer"];

export function chosenBelief(plan: Plan): Schemas["PlaceBeliefOut"] | undefined {
  return plan.belief.places.find((p) => p.place === plan.belief.chosen);
}

/** The belief at a place; at the one planned for where none of that name is known. */
export function beliefAt(plan: Plan, place: string | undefined): Schemas["PlaceBeliefOut"] | undefined {
  return plan.belief.places.find((p) => p.place === place) ?? chosenBelief(plan);
}

/**
 * What a set-up is called among those of its plan, in the reader's words: with its place, which is the angler's own word,
 * where that is not the one planned for.
 */
export function setUpTitle(
  plan: Plan,
  setUp: Plan["set_ups"][number],
  say: (text: string) => string,
): string {
  const title = say(setUp.title);
  return setUp.place === plan.belief.chosen ? title : `${title} · at ${setUp.place}`;
}

export function letter(index: number): string {
  return String.fromCharCode(65 + index);
}

/** Depth under the ring and a way to set it, for pages that use it. */
export function useRing(start = 1) {
  const [ring, setRing] = useState(start);
  return { ring, setRing };
}
