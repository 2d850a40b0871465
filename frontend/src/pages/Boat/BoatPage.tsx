/** The boat's instruments: connect, see, record a line of soundings, take wind and depth into the reading. */
import { lazy, Suspense, useState } from "react";
import { Column } from "../../column/Column";
import { Failed, Loading } from "../../components/states";
import { TwoPane } from "../../components/TwoPane";
import { WaterTabs } from "../../components/WaterTabs";
import { WithWater } from "../../components/WithWater";
import { useFeed } from "../../lib/feed";
import { useReader } from "../../lib/session";
import { pointOf } from "../../lib/units";
import type { Water } from "../../lib/waters";
import { Button } from "../../ui/controls";
import { Recorder, TakeOver } from "./Actions";
import { Connect } from "./Connect";
import { words } from "./strings";
import { Trace, useTrace } from "./Trace";
import { Values } from "./Values";

const Guided = lazy(() => import("../Water/Guided"));

export default function BoatPage() {
  return <WithWater>{(water) => <BoatWork water={water} />}</WithWater>;
}

function BoatWork({ water }: { water: Water }) {
  const { settings } = useReader();
  const asked = useFeed(true);
  const feed = asked.data;
  const trace = useTrace(feed);
  const [guided, setGuided] = useState(false);
  const deepest = Math.max(4, ...trace) * 1.15;
  const on = feed && feed.state !== "off" && feed.state !== "stopped";
  return (
    <TwoPane
      column={
        <Column bedM={deepest} unit={settings.depth_unit} summary={words.trace} className="h-full">
          <Trace depths={trace} />
        </Column>
      }
    >
      <div className="space-y-5">
        <div>
          <WaterTabs />
          <h1>{words.title}</h1>
          <p className="text-soft">{words.lead}</p>
        </div>
        {asked.isError && !feed && <Failed error={asked.error} again={() => void asked.refetch()} />}
        {!feed && asked.isPending && <Loading what={words.looking} />}
        {feed && (
          <>
            <p
              role="status"
              className={`text-lg font-bold ${feed.state === "lost" || feed.state === "refused" ? "text-warm" : ""}`}
            >
              {asked.isError ? words.states.lost : words.states[feed.state]}
            </p>
            {on && <Values feed={feed} />}
            {on && feed.heading_deg !== null && feed.speed_m_s !== null && (
              <p>{words.boat(pointOf(feed.heading_deg), feed.speed_m_s.toFixed(1))}</p>
            )}
            {on && <Recorder feed={feed} water={water} />}
            {on && (
              <div className="flex flex-wrap gap-2">
                <TakeOver feed={feed} />
                <Button onClick={() => setGuided(true)} disabled={feed.temperature_c === null}>
                  {words.guide}
                </Button>
              </div>
            )}
            <Connect feed={feed} />
            {on && (
              <p className="text-[0.92rem] text-soft">
                {words.heard(feed.good, feed.bad)}
                {feed.last_bad && `; ${words.lastBad(feed.last_bad)}`}
                {feed.connections > 1 && `; ${words.again(feed.connections)}`}.
              </p>
            )}
            <p className="text-[0.92rem] text-soft">{words.care}</p>
          </>
        )}
        {guided && (
          <Suspense>
            <Guided water={water} onClose={() => setGuided(false)} />
          </Suspense>
        )}
      </div>
    </TwoPane>
  );
}
