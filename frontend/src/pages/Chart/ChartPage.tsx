/** The chart: the bed on the cord, the shore beside it, soundings in and out. */
import { lazy, Suspense, useState } from "react";
import { Link } from "wouter";
import { Column } from "../../column/Column";
import { Hold } from "../../column/Hold";
import { Empty, Failed, Loading } from "../../components/states";
import { TwoPane } from "../../components/TwoPane";
import { WaterTabs } from "../../components/WaterTabs";
import { WithWater } from "../../components/WithWater";
import { useRing } from "../../lib/cord";
import { useBoxes } from "../../lib/reading";
import { useReader } from "../../lib/session";
import { areaText, depthText, distanceText, pointOf } from "../../lib/units";
import type { Water } from "../../lib/waters";
import { Choice } from "../../ui/controls";
import { BedLine, SoundingMarks } from "./BedLayer";

import { ChartMap } from "./ChartMap";
import { words } from "./strings";
import { type Chart, useChart } from "./useChart";

// Below the map.
const Lists = lazy(() => import("./Lists"));
const Files = lazy(() => import("./Files"));
const ByHand = lazy(() => import("./ByHand"));
const POINTS = [0, 45, 90, 135, 180, 225, 270, 315];

export default function ChartPage() {
  return <WithWater planned={false}>{(water) => <ChartWork water={water} />}</WithWater>;
}

function BedColumn({
  chart,
  water,
  lineId,
  ring,
  onRing,
}: {
  chart: Chart | undefined;
  water: Water;
  lineId: string | null;
  ring: number;
  onRing: (d: number) => void;
}) {
  const { settings } = useReader();
  const row = chart?.lines.find((l) => l.id === lineId);
  const deepest = row
    ? Math.max(...row.points.filter((p) => !p.wild).map((p) => p.depth_m), 1) * 1.12
    : water.max_depth_m;
  return (
    <Column
      bedM={Math.min(deepest, water.max_depth_m)}
      unit={settings.depth_unit}
      summary={row ? words.column : words.columnBare}
      className="h-full"
    >
      {row ? <BedLine row={row} /> : chart && <SoundingMarks chart={chart} />}
      <Hold
        depthM={Math.min(ring, deepest)}
        label={words.depth}
        note={row ? undefined : depthText(settings.depth_unit, ring)}
        onChange={onRing}
      />
    </Column>
  );
}

function ChartWork({ water }: { water: Water }) {
  const { settings } = useReader();
  const { draft } = useBoxes("windFrom");
  const [tried, setTried] = useState<string>("");
  const read = draft.windFrom === "" ? null : Number(draft.windFrom);
  const wind = tried === "" ? read : Number(tried);
  const asked = useChart(water.id, wind);
  const chart = asked.data;
  const { ring, setRing } = useRing(3);
  const [picked, setPicked] = useState<string | null>(null);
  const [mark, setMark] = useState<[number, number] | null>(null);
  const lineId = picked ?? chart?.lines[0]?.id ?? null;
  const unit = settings.depth_unit;
  return (
    <TwoPane column={<BedColumn chart={chart} water={water} lineId={lineId} ring={ring} onRing={setRing} />}>
      <div className="space-y-6">
        <div>
          <WaterTabs />
          <h1>{words.title}</h1>
          <p className="text-soft">
            {chart?.area_m2 != null && chart.shore_m !== null
              ? words.about(areaText(unit, chart.area_m2), distanceText(unit, chart.shore_m))
              : words.lead}{" "}
            {chart?.longest_fetch_m != null &&
              chart.downwind_shore &&
              words.fetch(distanceText(unit, chart.longest_fetch_m), chart.downwind_shore)}
          </p>
        </div>
        {asked.isError && !chart && <Failed error={asked.error} again={() => void asked.refetch()} />}
        {asked.isPending && <Loading what={words.working} />}
        {chart && (
          <>
            {chart.rings.length === 0 && (
              <Empty title={words.noOutline}>
                <p>{words.noOutlineAbout}</p>
              </Empty>
            )}
            <ChartMap
              chart={chart}
              name={water.name}
              windFrom={wind}
              ringM={ring}
              lineId={lineId}
              mark={mark}
              onMark={setMark}
            />
            {chart.rings.length > 0 && (
              <p className="!mt-1 text-[0.92rem] text-soft">
                {wind !== null && words.downwind} {words.ringAbout(depthText(unit, ring))}
              </p>
            )}
            <Choice
              label={words.wind}
              value={tried}
              options={POINTS.map((deg) => ({ value: String(deg), label: pointOf(deg) }))}
              onChange={setTried}
            />
            <Suspense>
              <Files water={water} chart={chart} />
              <ByHand water={water} levelM={chart.level_m} mark={mark} onKept={() => setMark(null)} />
              <Lists chart={chart} water={water} lineId={lineId} onPick={setPicked} />
            </Suspense>
            <p>
              <Link to={`/water/boat?w=${water.id}`}>{words.toBoat}</Link>
            </p>
          </>
        )}
      </div>
    </TwoPane>
  );
}
