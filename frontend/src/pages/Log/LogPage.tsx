import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { Link } from "wouter";
import { Column } from "../../column/Column";
import { EffortLayer, RateLayer } from "../../column/EffortLayer";
import { Empty, Failed, Loading } from "../../components/states";
import { TwoPane } from "../../components/TwoPane";
import { LOG_PAGE, logQuery } from "../../lib/log";
import { useReader } from "../../lib/session";
import { useWater } from "../../lib/waters";
import { Button, Choice } from "../../ui/controls";
import { OutingRow } from "./OutingRow";
import { DepthTable, RateLine } from "./Rates";
import { words } from "./strings";
import { useFilter } from "./useFilter";

const Answers = lazy(() => import("./Answers"));
const AddDay = lazy(() => import("./AddDay"));
const FishCaught = lazy(() => import("./FishCaught"));
const PlanCheck = lazy(() => import("./PlanCheck"));
const Filters = lazy(() => import("./Filters"));

/** How many outings are listed at first, and at most: the line above finds the others. */
const MOST = 1000;

export default function LogPage() {
  const { settings } = useReader();
  const { water, list } = useWater();
  const asked = useFilter();
  const { filter, only, set, some } = asked;
  const [most, setMost] = useState(LOG_PAGE);
  const [adding, setAdding] = useState(false);
  const log = useQuery({ ...logQuery(filter, most), placeholderData: keepPreviousData });
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
              <p className="text-soft">{words.blanks(data.blank_outings, data.count)}</p>
            </section>
            <DepthTable bins={data.by_depth} />
            <Suspense>
              <Answers filter={filter} />
              <FishCaught filter={filter} />
              <PlanCheck filter={filter} />
            </Suspense>
            <section>
              <h2 className="mb-1">{words.outings}</h2>
              <ul className="corded">
                {data.outings.map((outing) => (
                  <OutingRow key={outing.id} outing={outing} />
                ))}
              </ul>
              {data.count > data.outings.length && most < MOST && (
                <Button onClick={() => setMost(Math.min(MOST, most + LOG_PAGE))}>
                  {words.more(data.count - data.outings.length)}
                </Button>
              )}
            </section>
          </>
        )}
        <Button onClick={() => setAdding(true)}>{words.addDay}</Button>
        {adding && (
          <Suspense>
            <AddDay onClose={() => setAdding(false)} />
          </Suspense>
        )}
        <p className="flex flex-wrap gap-x-6">
          <Link to="/log/season" className="inline-flex min-h-11 items-center font-semibold">
            {words.toSeason}
          </Link>
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
