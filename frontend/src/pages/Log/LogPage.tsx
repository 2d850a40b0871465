import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { lazy, Suspense } from "react";
import { Link } from "wouter";
import { api, need, type Schemas } from "../../api/client";
import { Column } from "../../column/Column";
import { EffortLayer, RateLayer } from "../../column/EffortLayer";
import { Empty, Failed, Loading } from "../../components/states";
import { TwoPane } from "../../components/TwoPane";
import { useReader } from "../../lib/session";
import { dayText, hoursText } from "../../lib/time";
import { temperatureText } from "../../lib/units";
import { useWater } from "../../lib/waters";
import { Choice } from "../../ui/controls";
import { DepthTable, RateLine } from "./Rates";
import { words } from "./strings";
import { useFilter } from "./useFilter";

const Answers = lazy(() => import("./Answers"));
const Filters = lazy(() => import("./Filters"));

function OutingRow({ outing }: { outing: Schemas["OutingSummary"] }) {
  const { say, settings } = useReader();
  return (
    <li className="knot border-b border-rule">
      <Link to={`/log/${outing.id}`} className="block py-1.5 no-underline">
        <span className="font-bold underline">{dayText(outing.started_at, outing.time_zone)}</span> ·{" "}
        {outing.water_name}
        {outing.ended_at === null && <b className="text-take"> · {words.running}</b>}
        <span className="block">
          {words.row(outing.takes, outing.landed, hoursText(outing.hours))}
          <span className="text-soft"> · {say(outing.methods.join(", "))}</span>
        </span>
        {(outing.surface_c != null || outing.wind) && (
          <span className="block text-soft">
            {words.read(
              outing.surface_c == null ? "" : temperatureText(settings.temperature_unit, outing.surface_c),
              [outing.wind, outing.wind_m_s == null ? "" : say(`${outing.wind_m_s} m/s`)]
                .filter(Boolean)
                .join(" "),
            )}
          </span>
        )}
        {outing.note && <span className="block text-soft italic">{outing.note}</span>}
      </Link>
    </li>
  );
}

export default function LogPage() {
  const { settings } = useReader();
  const { water, list } = useWater();
  const asked = useFilter();
  const { filter, only, set, some } = asked;
  const log = useQuery({
    queryKey: ["log", filter],
    queryFn: () => need(api.GET("/api/log", { params: { query: filter } })),
    placeholderData: keepPreviousData,
  });
  if (log.isPending) return <Loading what={words.opening} />;
  if (log.isLoadingError) return <Failed error={log.error} again={() => void log.refetch()} />;
  const data = log.data;
  const deepest = data.by_depth.at(-1)?.bottom_m ?? 6;
  return (
    <TwoPane
      column={
        <Column bedM={deepest + 0.5} unit={settings.depth_unit} summary={words.columnAll} className="h-full">
          <RateLayer bins={data.by_depth} />
          <EffortLayer bins={data.by_depth} />
        </Column>
      }
    >
      <div className="space-y-5">
        <h1>{words.title}</h1>
        {list.length > 1 && (
          <Choice
            label={words.which}
            required
            value={only ? "only" : "all"}
            options={[
              { value: "all", label: words.all },
              { value: "only", label: water?.name ?? words.only },
            ]}
            onChange={(next) => set("only", next === "only" ? "1" : "")}
          />
        )}
        {(data.outings.length > 0 || some) && (
          <Suspense>
            <Filters {...asked} />
          </Suspense>
        )}
        {data.outings.length === 0 ? (
          <Empty title={some ? words.nothingFits : words.empty}>
            {!some && (
              <p>
                {words.emptyAbout} <Link to="/log/keep">{words.emptyBook}</Link>
              </p>
            )}
          </Empty>
        ) : (
          <>
            <section className="space-y-1" data-testid="rates">
              <RateLine title={words.landed} rate={data.landed_rate} />
              <RateLine title={words.takes} rate={data.takes_rate} />
              <p className="text-soft">{words.blanks(data.blank_outings, data.outings.length)}</p>
            </section>
            <DepthTable bins={data.by_depth} />
            <Suspense>
              <Answers filter={filter} />
            </Suspense>
            <section>
              <h2 className="mb-1">{words.outings}</h2>
              <ul className="corded">
                {data.outings.map((outing) => (
                  <OutingRow key={outing.id} outing={outing} />
                ))}
              </ul>
            </section>
          </>
        )}
        <p className="flex flex-wrap gap-x-6">
          <Link to="/log/keep" className="inline-flex min-h-11 items-center font-semibold">
            {words.toKeep}
          </Link>
          <Link to="/log/bin" className="inline-flex min-h-11 items-center font-semibold">
            {words.toBin}
          </Link>
        </p>
      </div>
    </TwoPane>
  );
}
