/** What to stop for and to mind on the water: what the plan said, and what the hours bring on their own. */

import { useEffect, useState } from "react";
import type { Schemas } from "../../api/client";
import { routes } from "../../api/routes";
import type { Outing } from "../../offline/overlay";

type Ahead = Schemas["AheadOut"];
type Said = Pick<Ahead, "code" | "level" | "sentence">;

const LOOK_MS = 20_000;
const ASK_MS = 2 * 60_000;
const SOON_MS = 60 * 60_000;
const ENDS_THE_DAY = new Set(["thunder", "wind"]);

function useNow(): number {
  const [now, setNow] = useState(Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), LOOK_MS);
    return () => clearInterval(timer);
  }, []);
  return now;
}

const same = (one: Said) => (other: Said) => one.code === other.code && one.level === other.level;

export function useAhead(outing: Outing) {
  const now = useNow();
  const asked = routes.useQuery(
    "get",
    "/api/outings/{outing_id}/ahead",
    { params: { path: { outing_id: outing.id } } },
    { refetchInterval: ASK_MS, retry: 1 },
  );
  const ofPlan = (outing.plan?.cautions ?? []).filter((one) => one.level !== "note") as Said[];
  // The server knows what has been read since: a stop of the plan's own holds where it says so, or cannot be asked.
  const planned = ofPlan.filter(
    (one) =>
      !(one.level === "stop" && ENDS_THE_DAY.has(one.code)) || !asked.data || asked.data.some(same(one)),
  );
  const told = (asked.data ?? []).filter((one) => !planned.some(same(one)));
  const came = told.filter((one) => new Date(one.since).getTime() <= now);
  const soon = told.filter((one) => {
    const left = new Date(one.since).getTime() - now;
    return left > 0 && left <= SOON_MS;
  });
  const all: (Said & { since?: string })[] = [...planned, ...came];
  // What has become a stop is no longer only to be minded.
  const stops = all.filter((one) => one.level === "stop");
  const cares = all.filter((one) => one.level === "caution" && !stops.some((stop) => stop.code === one.code));
  /** Nobody should be on the water: nothing else is advised beside that. */
  const off = stops.some((one) => ENDS_THE_DAY.has(one.code));
  return { stops, cares, soon, off };
}
