import type { Schemas } from "../../api/client";
import type { HandMade } from "../../lib/day";

type SetUp = Schemas["SetUpOut"];

/** A set-up of the plan as one made by hand, every part as it stands; null for those that hang on where the boat is. */
export function handMadeFrom(setUp: SetUp): HandMade | null {
  if (setUp.style === "dangle" || setUp.style === "drifted") return null;
  return {
    line: setUp.line_key,
    flies: setUp.flies.map((fly) => fly.key),
    hooks: setUp.flies.map((fly) => fly.hook),
    retrieve: (setUp.retrieve.key || "static") as HandMade["retrieve"],
    count_s: setUp.count_s,
    float_hang_m: setUp.float_hang_m,
    style: setUp.style as HandMade["style"],
  };
}
