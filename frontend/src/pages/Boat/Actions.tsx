/** What is done with the feed: a line recorded, wind and depth taken into the reading. */

import { useState } from "react";
import { Link } from "wouter";
import { Failed } from "../../components/states";
import { inBoxes } from "../../lib/draft";
import { type FeedState, useFeedActions } from "../../lib/feed";
import { useBoxes, useReading } from "../../lib/reading";
import { boxText, depthTo } from "../../lib/units";
import type { Water } from "../../lib/waters";
import { Button } from "../../ui/controls";
import { useDone } from "../../ui/UndoBar";
import { words } from "./strings";

export function TakeOver({ feed }: { feed: FeedState }) {
  const { draft, change } = useBoxes(
    "wind",
    "windFrom",
    "waterDepth",
    "sources",
    "depthUnit",
    "temperatureUnit",
    "windUnit",
  );
  const done = useDone();
  const wind = () => {
    if (feed.wind_m_s === null || feed.wind_from_deg === null) return;
    const before = { wind: draft.wind, windFrom: draft.windFrom, sources: draft.sources };
    change({
      ...inBoxes({ wind_m_s: feed.wind_m_s, wind_from_deg: Math.round(feed.wind_from_deg) % 360 }, draft),
      sources: { ...draft.sources, wind: "instrument" },
    });
    done({ text: words.tookWind, undo: () => change(before) });
  };
  const depth = () => {
    if (feed.depth_m === null) return;
    const before = { waterDepth: draft.waterDepth, sources: draft.sources };
    change({
      waterDepth: boxText(depthTo(draft.depthUnit, feed.depth_m), draft.depthUnit === "m" ? 1 : 0),
      sources: { ...draft.sources, water_depth: "instrument" },
    });
    done({ text: words.tookDepth, undo: () => change(before) });
  };
  return (
    <>
      <Button onClick={wind} disabled={feed.wind_m_s === null}>
        {words.takeWind}
      </Button>
      <Button onClick={depth} disabled={feed.depth_m === null}>
        {words.takeDepth}
      </Button>
    </>
  );
}

export function Recorder({ feed, water }: { feed: FeedState; water: Water }) {
  const { body } = useReading("body");
  const { record, stop } = useFeedActions();
  const [lineId, setLineId] = useState(() => crypto.randomUUID());
  const failed = record.error ?? stop.error;
  return (
    <div className="space-y-1">
      {feed.recording ? (
        <p className="flex flex-wrap items-center gap-3">
          <Button
            look="danger"
            onClick={() => stop.mutate(undefined, { onSuccess: () => setLineId(crypto.randomUUID()) })}
          >
            {words.stop}
          </Button>
          <span role="status" className="font-semibold">
            {words.recording(feed.recorded)}
          </span>
        </p>
      ) : (
        <Button
          look="main"
          onClick={() =>
            record.mutate({ water_id: water.id, line_id: lineId, level_m: body.reading?.level_m ?? 0 })
          }
          disabled={feed.state !== "live" || record.isPending}
        >
          {words.record}
        </Button>
      )}
      {stop.isSuccess && !feed.recording && (
        <p role="status">
          {words.kept} <Link to={`/water/chart?w=${water.id}`}>{words.toChart}</Link>
        </p>
      )}
      {failed && <Failed error={failed} />}
    </div>
  );
}
