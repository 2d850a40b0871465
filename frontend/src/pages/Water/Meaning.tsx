/** What the reading means, in a few sentences. */
import type { Schemas } from "../../api/client";
import { useReader } from "../../lib/session";
import { bandText, depthText } from "../../lib/units";
import { words } from "./strings";

export function Meaning({ plan }: { plan: Schemas["PlanAnswer"] }) {
  const { say, settings } = useReader();
  const unit = settings.depth_unit;
  const w = plan.water;
  const lines: string[] = [];
  if (w.behaviour && w.approach) lines.push(words.behaves(w.behaviour, w.approach));
  if (w.welfare && w.welfare !== "ok" && w.welfare_sentence) lines.push(w.welfare_sentence);
  if (w.temperature) {
    const { thermocline_m: at, thermocline_top_m: top, thermocline_bottom_m: bottom } = w;
    const band = top !== null && bottom !== null ? bandText(unit, top, bottom) : "";
    lines.push(at === null ? words.noThermocline : words.thermocline(depthText(unit, at), band));
  }
  if (w.beaufort !== null) lines.push(words.windMeans(w.beaufort, w.downwind_shore));
  lines.push(
    w.light_comfort_m > 0.05 ? words.lightEases(depthText(unit, w.light_comfort_m)) : words.lightEasy,
  );
  return (
    <section aria-labelledby="means" aria-live="polite">
      <h2 id="means" className="mb-1">
        {words.means}
      </h2>
      <ul className="corded space-y-1">
        {lines.map((line) => (
          <li key={line} className="knot">
            {say(line)}
          </li>
        ))}
      </ul>
      <h3 className="mt-4">{words.foodNow}</h3>
      <ul className="mt-1 max-w-md">
        {w.food.slice(0, 4).map((food) => (
          <li key={food.key} className="grid grid-cols-[1fr_6rem_3.5rem] items-center gap-2">
            <span>{say(food.name)}</span>
            <span className="h-3 border border-weed">
              <span className="block h-full bg-weed" style={{ width: `${Math.round(food.share * 100)}%` }} />
            </span>
            <span title={words.bySeason(Math.round(food.season_share * 100))}>
              {Math.round(food.share * 100)} %
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
