/** Nothing on the go: the day's best set-up ready to start, and the last outing to carry on or look back at. */

import { keepPreviousData, type QueryClient, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "wouter";
import { api, need, OfflineError, type Schemas } from "../../api/client";
import { routes } from "../../api/routes";
import { letter } from "../../lib/cord";
import { setUpCount } from "../../lib/counted";
import type { PlanBody } from "../../lib/draft";
import { logQuery } from "../../lib/log";
import { useReach } from "../../lib/reach";
import { useReader } from "../../lib/session";
import { clockText, dayAndClock, dayText, isToday } from "../../lib/time";
import { depthText } from "../../lib/units";
import { newestReading, useWater, type Water } from "../../lib/waters";
import { keepReady, keptReady, type ReadyDay } from "../../offline/ready";
import { outingAsked } from "../../offline/useOuting";
import { keepable } from "../../offline/worker";
import { Button, Fault } from "../../ui/controls";
import { useStart } from "../Plan/useStart";
import { words } from "./strings";

/** A reading older than this says little of now. */
const READ_WITHIN_MS = 18 * 3_600_000;

async function bestNow(water_id: string): Promise<ReadyDay> {
  const params = { path: { water_id }, query: { count: 1 } };
  const [newest] = await need(api.GET("/api/waters/{water_id}/readings", { params }));
  const now = Date.now();
  const fresh = newest && now - new Date(newest.taken_at).getTime() < READ_WITHIN_MS ? newest : undefined;
  const body = {
    water_id,
    when: new Date(now).toISOString(),
    place: fresh?.place ?? null,
    reading: fresh?.reading ?? {},
    sightings: fresh?.sightings ?? [],
    samples: fresh?.samples ?? [],
  } as PlanBody;
  const plan = await need(api.POST("/api/plans/preview", { body }));
  const day = { body, plan, read: fresh !== undefined, at: new Date(now).toISOString() };
  void keepReady(water_id, day);
  return day;
}

/** The plan of now for a water, from its newest reading; in the dark the last one this device has seen. */
function useBestNow(waterId: string | undefined) {
  return useQuery({
    queryKey: ["best-now", waterId],
    enabled: waterId !== undefined,
    placeholderData: keepPreviousData,
    queryFn: async () => {
      try {
        return await bestNow(waterId ?? "");
      } catch (error) {
        const kept = error instanceof OfflineError ? await keptReady(waterId ?? "") : undefined;
        if (kept) return kept;
        throw error;
      }
    },
    retry: false,
  });
}

const LAST_OUTINGS = 5;

/** The log and the last outings in it, to be looked back at without signal. */
async function keepLastOutings(client: QueryClient) {
  const { outings } = await client.fetchQuery(logQuery());
  const kept = outings.slice(0, LAST_OUTINGS).map(({ id }) => client.prefetchQuery(outingAsked(id)));
  await Promise.all(kept);
}

/** What a day in the dark needs, fetched while there is signal, and said once it is here. */
function useKept(water: Water, day: ReadyDay | undefined) {
  const client = useQueryClient();
  const reached = useReach();
  return useQuery({
    queryKey: ["kept", water.id, day?.at],
    enabled: day !== undefined && reached && keepable,
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: async () => {
      if (!day) return null;
      const [ways, kit] = await Promise.all([
        need(api.POST("/api/plans/if-blank", { body: day.body })),
        need(api.POST("/api/plans/kit", { body: day.body })),
        client.prefetchQuery(routes.queryOptions("get", "/api/kit")),
        client.prefetchQuery(newestReading(water.id)),
        keepLastOutings(client),
        navigator.serviceWorker.ready,
      ]);
      await keepReady(water.id, { ...day, ways: [...ways], kit });
      return day.at;
    },
    retry: 1,
  });
}

function KeptNote({ water, day }: { water: Water; day: ReadyDay }) {
  const kept = useKept(water, day);
  const reached = useReach();
  const zone = water.time_zone ?? "UTC";
  if (!reached) return <p className="text-soft">{words.asPlanned(dayAndClock(day.at, zone))}</p>;
  if (!keepable) return null;
  return (
    <p className="text-soft" role="status" data-testid="kept">
      {kept.data ? words.keptForDark(clockText(kept.data, zone)) : words.keeping}
    </p>
  );
}

function Best({ water, into }: { water: Water; into: string | null }) {
  const { settings, say } = useReader();
  const { data } = useBestNow(water.id);
  const start = useStart();
  const setUp = data?.plan.set_ups[0];
  if (!data || !setUp) return null;
  const unit = settings.depth_unit;
  const deep = depthText(unit, setUp.float_hang_m ?? setUp.estimate_m ?? setUp.target_m);
  const uncounted = setUp.method === "float" ? say(`float ${deep}`) : deep;
  const depth = setUp.count_s === null ? uncounted : setUpCount(unit, setUp);
  const stop = data.plan.cautions.find((one) => one.level === "stop");
  return (
    <section className="w-full max-w-xl border-y-2 border-ink py-3 text-left" data-testid="ready">
      <p className="text-soft">{data.read ? words.readyRead(water.name) : words.readyUnread(water.name)}</p>
      <h2>
        {letter(0)} · {say(setUp.title)}
      </h2>
      <p>
        {depth}. {say(setUp.flies.map((fly) => fly.name).join(", "))}. {setUp.place}.
      </p>
      <KeptNote water={water} day={data} />
      {stop && <p className="my-2 border-l-4 border-warm pl-2 font-bold">{say(stop.sentence)}</p>}
      {!stop && (
        <Button
          look="main"
          className="mt-2 min-h-12"
          disabled={start.isPending}
          onClick={() =>
            start.mutate({
              body: data.body,
              key: setUp.key,
              title: setUp.title,
              seen: { plan: data.plan, water },
              into,
            })
          }
        >
          {words.readyStart}
        </Button>
      )}
      {start.isError && (
        <Fault
          problem={{
            code: "offline",
            path: "",
            message: start.error.message,
            accepted: "",
            hint: words.readyHint,
          }}
        />
      )}
    </section>
  );
}

function Last({ outing }: { outing: Schemas["OutingSummary"] }) {
  const { say } = useReader();
  const today = outing.ended_at !== null && isToday(outing.ended_at, outing.time_zone);
  return (
    <p>
      {words.lastOuting(dayText(outing.started_at, outing.time_zone), outing.water_name, outing.takes)}{" "}
      {outing.methods[0] && say(outing.methods[0])}{" "}
      <Link to={today ? `/fish/${outing.id}?w=${outing.water_id}` : `/log/${outing.id}`}>
        {today ? words.carryOn : words.lookBack}
      </Link>
    </p>
  );
}

/** Ready to begin an outing, or the one it goes `into`. */
export default function Ready({ into = null }: { into?: string | null }) {
  const { water } = useWater();
  const log = useQuery({
    ...logQuery({ water_id: water?.id }),
    enabled: water !== undefined,
    retry: 1,
  });
  const last = log.data?.outings[0];
  return (
    <>
      {water && <Best water={water} into={into} />}
      {last && into === null && <Last outing={last} />}
    </>
  );
}
