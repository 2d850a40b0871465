/** The fish landed: by species, how long, and what became of them. */

import { keepPreviousData } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { routes } from "../../api/routes";
import { Failed } from "../../components/states";
import type { Filter } from "../../lib/log";
import { useReader } from "../../lib/session";
import { fishText } from "../../lib/units";
import { words } from "./strings";

type Species = Schemas["CaughtOut"];
/** How wide a step of the picture is: five centimetres, or two inches. */
const STEP_CM = { m: 5, ft: 5.08 };

/** The middle length and the longest, in metres, of those that were measured. */
function lengths(of: Species): { middle: number; longest: number; measured: number } | null {
  const known = of.sizes.filter((one) => one.length_cm !== null);
  const measured = known.reduce((sum, one) => sum + one.count, 0);
  if (measured === 0) return null;
  let passed = 0;
  const middle = known.find((one) => {
    passed += one.count;
    return 2 * passed >= measured;
  });
  return { middle: (middle?.length_cm ?? 0) / 100, longest: (known.at(-1)?.length_cm ?? 0) / 100, measured };
}

/** How many of each step of length, as bars with their numbers. */
function Lengths({ of, unit }: { of: Species; unit: "m" | "ft" }) {
  const step = STEP_CM[unit];
  const steps = new Map<number, number>();
  for (const one of of.sizes)
    if (one.length_cm !== null) {
      const at = Math.floor(one.length_cm / step);
      steps.set(at, (steps.get(at) ?? 0) + one.count);
    }
  const most = Math.max(...steps.values());
  return (
    <ul className="max-w-md">
      {[...steps]
        .sort(([a], [b]) => a - b)
        .map(([at, count]) => (
          <li key={at} className="grid grid-cols-[8.5rem_1fr] items-center gap-2">
            <span className="whitespace-nowrap text-right">
              {words.between(fishText(unit, (at * step) / 100), fishText(unit, ((at + 1) * step) / 100))}
            </span>
            <span className="flex items-center gap-1.5">
              <span aria-hidden className="h-3.5 bg-take" style={{ width: `${(80 * count) / most}%` }} />
              {count}
            </span>
          </li>
        ))}
    </ul>
  );
}

export default function FishCaught({ filter }: { filter: Filter }) {
  const { settings } = useReader();
  const unit = settings.depth_unit;
  const asked = routes.useQuery(
    "get",
    "/api/log/fish",
    { params: { query: filter } },
    { placeholderData: keepPreviousData },
  );
  if (asked.isLoadingError) return <Failed error={asked.error} again={() => void asked.refetch()} />;
  if (!asked.data) return null;
  return (
    <section data-testid="fish-caught" className="space-y-2">
      <h2>{words.fishCaught}</h2>
      {asked.data.length === 0 && <p className="text-soft">{words.noFish}</p>}
      {asked.data.map((of) => {
        const told = lengths(of);
        return (
          <div key={of.species}>
            <p>
              <b>{words.species[of.species]}</b>: {words.fates(of.count, of.returned, of.kept)}{" "}
              {told &&
                words.lengths(fishText(unit, told.middle), fishText(unit, told.longest), told.measured)}
            </p>
            {told && <Lengths of={of} unit={unit} />}
          </div>
        );
      })}
    </section>
  );
}
