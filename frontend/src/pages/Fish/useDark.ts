/** What to do next where the server cannot be asked: worked out beforehand, while there was signal. */
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, need, type Schemas } from "../../api/client";
import { useReach } from "../../lib/reach";
import { clockText } from "../../lib/time";
import { darkStep } from "../../offline/dark";
import type { Outing, Spell } from "../../offline/overlay";
import { keptReady } from "../../offline/ready";
import { useOutbox } from "../../offline/useOuting";
import { words } from "./strings";
import { useArrived } from "./useArrived";

const ANEW_MS = 10 * 60_000;
const TICK_MS = 15_000;
type Advice = Pick<Schemas["AdviseAnswer"], "next" | "evidence" | "plan_right">;

/** Kept while there is signal: the phases ahead from what is fished, and those of the plan the day began with. */
function useAheadWays(outing: Outing, spell: Spell) {
  const reached = useReach();
  const arrived = useArrived(outing.id);
  const own = useQuery({
    queryKey: ["if-blank", outing.id],
    queryFn: async () => {
      const params = { path: { outing_id: outing.id } };
      const ways = await need(api.GET("/api/outings/{outing_id}/if-blank", { params }));
      const at = new Date().toISOString();
      return ways.map((way) => ({ phases: [...way.phases], spell: spell.id, at }));
    },
    refetchInterval: ANEW_MS,
    enabled: (outing.revision > 0 && arrived) || !reached,
    retry: false,
  });
  const { refetch } = own;
  // Another stretch looks ahead from elsewhere: once it has arrived, and not again with every tap.
  const from = useRef("");
  useEffect(() => {
    if (!reached) from.current = "";
    if (!reached || !arrived || outing.revision === 0 || from.current === spell.id) return;
    from.current = spell.id;
    void refetch();
  }, [spell.id, reached, arrived, outing.revision, refetch]);
  const begun = useQuery({
    queryKey: ["begun-ways", outing.water_id],
    queryFn: async () => {
      const day = await keptReady(outing.water_id);
      return (day?.ways ?? []).map((way) => ({ phases: [...way.phases], at: day?.at ?? "" }));
    },
  });
  return [...(own.data ?? []), ...(begun.data ?? [])];
}

/** The step and its reasons, as the strip shows those of the server; undefined with signal, or where nothing was foreseen. */
export function useDark(outing: Outing, spell: Spell): Advice | undefined {
  const reached = useReach();
  const { entries } = useOutbox();
  const ways = useAheadWays(outing, spell);
  const [, tick] = useState(0);
  useEffect(() => {
    if (reached) return;
    const timer = setInterval(() => tick((n) => n + 1), TICK_MS);
    return () => clearInterval(timer);
  }, [reached]);
  if (reached) return undefined;
  const turned = entries.some(({ write }) => write.kind === "turn" && write.outing === outing.id);
  const found = darkStep(ways, outing, spell, turned);
  if (!found) return undefined;
  const { stay, next, at } = found;
  const evidence = [
    ...(at ? [words.darkAbout(clockText(at, outing.time_zone))] : []),
    ...(turned ? [words.darkTurned] : []),
  ];
  if (stay > 0 || next === null) return { next: [stayStep(spell, stay)], evidence, plan_right: 1 };
  return { next: [next], evidence, plan_right: 1 };
}

function stayStep(spell: Spell, minutes: number): Schemas["StepOut"] {
  const { place = "", line_title = "", count_s = null, flies = [] } = spell;
  return {
    ...{ kind: "stay", words: words.darkStay(minutes), set_up: null, float_hang_m: null, reasons: [] },
    ...{
      place,
      line_title,
      count_s,
      flies,
      method: spell.method,
      title: spell.title,
      pace: spell.pace ?? "",
    },
    ...{ depth_m: spell.depth_m ?? null, low_m: spell.low_m ?? null, high_m: spell.high_m ?? null },
    ...{ minutes, chance: 0, chance_now: 0, cost_min: 0 },
  } as Schemas["StepOut"];
}
