/** What the day is planned for: aim, hours, a depth found, factors left out, set-ups made by hand. Kept on this device. */
import { useCallback, useState } from "react";
import type { Schemas } from "../api/client";
import { load, save } from "./store";
import { type DepthUnit, depthFrom, typedNumber } from "./units";

type Body = Schemas["PlanBody"];
type Aim = Body["aim"];
export type FactorName = Body["without"][number];
export type HandMade = Schemas["HandMade"];
export type Compared = Schemas["Before"];

export interface Day {
  aim: Aim;
  hours: number;
  /** As typed, in the angler's depth unit. */
  found: string;
  foundUnit: DepthUnit;
  without: FactorName[];
  byHand: HandMade[];
}

export const MOST_BY_HAND = 4;

const EMPTY: Day = { aim: "most", hours: 4, found: "", foundUnit: "m", without: [], byHand: [] };

export function useStoredDay(key: string) {
  const [day, setDay] = useState<Day>(() => ({ ...EMPTY, ...load<Partial<Day>>(key, {}) }));
  const changeDay = useCallback(
    (part: Partial<Day>) =>
      setDay((old) => {
        const next = { ...old, ...part };
        save(key, next);
        return next;
      }),
    [key],
  );
  return { day, changeDay };
}

/** The depth found, in metres; null where none is typed, NaN where it is no number. */
export function foundM(day: Day): number | null {
  const typed = typedNumber(day.found);
  return typed === null ? null : depthFrom(day.foundUnit, typed);
}

export function dayBody(day: Day) {
  const found = foundM(day);
  return {
    aim: day.aim,
    session_h: day.hours,
    without: day.without,
    found_m: found !== null && Number.isFinite(found) ? found : null,
    by_hand: day.byHand,
  };
}
