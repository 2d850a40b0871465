/** What moves the depth: each factor with what it says, how much it moves, a look at it on the cord, and a way to leave it out. */
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { chosenBelief } from "../../lib/cord";
import type { FactorName } from "../../lib/day";
import { useReading } from "../../lib/reading";
import { useReader } from "../../lib/session";
import { bandText } from "../../lib/units";
import { Button } from "../../ui/controls";
import { more } from "./moreStrings";
import { words } from "./strings";

type Factor = Schemas["FactorOut"];
const SHOWN_SHARE = 0.005;

function Moves({ factor, likeliest }: { factor: Factor; likeliest: string }) {
  const { settings } = useReader();
  const share = factor.moves_share ?? 0;
  if (factor.off || factor.without_top_m == null || factor.without_bottom_m == null) return null;
  if (share < SHOWN_SHARE) return <span className="text-soft">{more.movesNothing}</span>;
  const band = bandText(settings.depth_unit, factor.without_top_m, factor.without_bottom_m);
  const percent = Math.round(share * 100);
  const other = factor.without_place;
  return (
    <span className="text-soft">
      {other && other !== likeliest ? more.movesPlace(percent, band, other) : more.moves(percent, band)}
    </span>
  );
}

interface Props {
  plan: Schemas["PlanAnswer"];
  shown: string | null;
  onShow: (name: string | null) => void;
}

export default function Factors({ plan, shown, onShow }: Props) {
  const { say } = useReader();
  const { day, changeDay } = useReading("day", "changeDay");
  const [open, setOpen] = useState(day.without.length > 0);
  const belief = chosenBelief(plan);
  if (!belief) return null;
  const likeliest = plan.belief.places.reduce((a, b) => (b.share > a.share ? b : a)).place;
  const toggle = (name: FactorName) =>
    changeDay({
      without: day.without.includes(name)
        ? day.without.filter((one) => one !== name)
        : [...day.without, name],
    });
  return (
    <details open={open} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="min-h-11 cursor-pointer py-2 font-semibold">{more.factors}</summary>
      <p className="text-[0.92rem] text-soft">{more.factorsAbout}</p>
      <ul className="mt-2">
        {belief.factors.map((factor) => {
          const word = more.factorWords[factor.name] ?? factor.name;
          const flat = factor.log_weight.every((v) => v === 0);
          return (
            <li
              key={factor.name}
              className="grid gap-x-3 border-t border-rule py-2 min-[34rem]:grid-cols-[minmax(0,1fr)_auto]"
            >
              <div className={factor.off ? "text-soft line-through decoration-1" : ""}>
                <b>{word}</b>{" "}
                <span className={factor.known ? "text-soft" : "text-soft italic"}>
                  ({factor.off ? more.off : factor.known ? more.known : flat ? more.silent : more.guess})
                </span>
                : {say(factor.sentence)} <Moves factor={factor} likeliest={likeliest} />
              </div>
              <div className="flex items-start gap-1.5">
                <Button
                  className="!px-2.5 text-[0.92rem]"
                  aria-pressed={shown === factor.name}
                  aria-label={`${more.show}: ${word}`}
                  disabled={flat}
                  onClick={() => onShow(shown === factor.name ? null : factor.name)}
                >
                  {more.show}
                </Button>
                <Button
                  className="!px-2.5 text-[0.92rem]"
                  aria-label={`${factor.off ? more.takeIn : more.leaveOut}: ${word}`}
                  disabled={flat && !factor.off}
                  onClick={() => toggle(factor.name as FactorName)}
                >
                  {factor.off ? more.takeIn : more.leaveOut}
                </Button>
              </div>
            </li>
          );
        })}
      </ul>
      <h3 className="mt-3">{words.places}</h3>
      <ul>
        {plan.belief.places.map((place) => (
          <li key={place.place}>
            {place.place}: {Math.round(place.share * 100)} %
          </li>
        ))}
      </ul>
    </details>
  );
}
