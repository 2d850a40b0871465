import type { Schemas } from "../../api/client";
import type { HandMade } from "../../lib/day";

/** Where the boat moves the flies, nobody retrieves. */
function retrieveOf(setUp: SetUp): HandMade["retrieve"] {
  const key = setUp.retrieve.key;
  return (key === "" || key === "drift" ? "static" : key) as HandMade["retrieve"];
}

type SetUp = Schemas["SetUpOut"];

/** A set-up of the plan as one made by hand, every part as it stands. */
export function handMadeFrom(setUp: SetUp): HandMade {
  return {
    line: setUp.line_key,
    flies: setUp.flies.map((fly) => fly.key),
    hooks: setUp.flies.map((fly) => fly.hook),
    retrieve: retrieveOf(setUp),
    count_s: setUp.count_s,
    float_hang_m: setUp.float_hang_m,
    let_down_m: setUp.style === "dangle" ? setUp.cast_m : null,
    style: setUp.style as HandMade["style"],
  };
}
