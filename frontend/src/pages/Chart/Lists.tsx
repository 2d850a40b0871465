/** Places, lines and soundings in words, for reading and for taking away. */
import { useReader } from "../../lib/session";
import { dayText } from "../../lib/time";
import { bandText, depthText, distanceText } from "../../lib/units";
import type { Water } from "../../lib/waters";
import { Button } from "../../ui/controls";
import { useDone } from "../../ui/UndoBar";
import { words } from "./strings";
import { type Chart, useDeleteLine, useDeleteSounding, usePutSounding } from "./useChart";

function windOn(onto: number | null): string {
  if (onto === null) return "";
  return `, ${onto > 0.35 ? words.onto : onto < -0.35 ? words.off : words.along}`;
}

function Places({ chart }: { chart: Chart }) {
  const { settings } = useReader();
  const unit = settings.depth_unit;
  return (
    <section>
      <h2>{words.places}</h2>
      <ul className="corded space-y-1">
        {chart.places.map((p) => (
          <li key={p.name} className="knot">
            <b>{p.name}</b>: {words.bed(bandText(unit, p.depth_min_m, p.depth_max_m))}
            {p.pooled_m !== null && p.pooled_doubt_m !== null && (
              <>, {words.pooled(depthText(unit, p.pooled_m), depthText(unit, p.pooled_doubt_m))}</>
            )}
            {p.agree === false && <span className="text-warm">, {words.disagree}</span>}
            {windOn(p.onto)}.
          </li>
        ))}
      </ul>
    </section>
  );
}

interface LinesProps {
  chart: Chart;
  water: Water;
  lineId: string | null;
  onPick: (id: string) => void;
}

function Lines({ chart, water, lineId, onPick }: LinesProps) {
  const { settings } = useReader();
  const unit = settings.depth_unit;
  const remove = useDeleteLine(water.id);
  return (
    <section>
      <h2>{words.lines}</h2>
      {chart.lines.length === 0 && <p className="text-soft">{words.noLines}</p>}
      <ul className="corded space-y-2">
        {chart.lines.map((line) => (
          <li key={line.id} className="knot">
            <p>
              <b>{dayText(line.started_at, water.time_zone ?? "UTC")}</b>:{" "}
              {words.line(line.points.length, line.wild)}.{" "}
              {line.ledges
                .map((e) =>
                  words.ledge(
                    depthText(unit, e.upper_m),
                    depthText(unit, e.lower_m),
                    distanceText(unit, e.run_m),
                  ),
                )
                .join(" ")}
            </p>
            <Button disabled={line.id === lineId} onClick={() => onPick(line.id)}>
              {line.id === lineId ? words.shown : words.show}
            </Button>{" "}
            <Button
              look="quiet"
              onClick={() => window.confirm(words.removeLineSure) && remove.mutate(line.id)}
            >
              {words.removeLine}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Soundings({ chart, water }: { chart: Chart; water: Water }) {
  const { settings } = useReader();
  const unit = settings.depth_unit;
  const remove = useDeleteSounding(water.id);
  const put = usePutSounding(water.id);
  const done = useDone();
  const takeAway = (s: Chart["soundings"][number]) =>
    remove.mutate(s.id, {
      onSuccess: () =>
        done({
          text: words.removed,
          undo: () =>
            put.mutate({
              id: s.id,
              body: {
                depth_m: s.depth_today_m,
                level_m: chart.level_m,
                method: s.method,
                taken_at: s.taken_at,
                place: s.place,
                longitude_deg: s.longitude_deg,
                latitude_deg: s.latitude_deg,
              },
            }),
        }),
    });
  if (chart.soundings.length === 0) return null;
  return (
    <details>
      <summary className="min-h-11 cursor-pointer py-2 font-semibold">
        {words.soundings(chart.soundings.length)}
      </summary>
      <ul className="divide-y divide-rule">
        {chart.soundings.slice(0, 200).map((s) => (
          <li key={s.id} className="flex items-center gap-3 py-0.5">
            <b className="w-16 text-right">{depthText(unit, s.depth_today_m)}</b>
            <span className="flex-1 text-[0.95rem]">
              {words.giveOrTake(depthText(unit, s.doubt_m))}, {words.methodNames[s.method]}
              {s.place && ` · ${s.place}`} · {dayText(s.taken_at, water.time_zone ?? "UTC")}
            </span>
            <Button
              look="quiet"
              className="px-2 text-xl !no-underline"
              aria-label={words.remove(depthText(unit, s.depth_today_m))}
              onClick={() => takeAway(s)}
            >
              ×
            </Button>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** What the chart holds, one under the other. */
export default function Lists(props: LinesProps) {
  return (
    <>
      <Places chart={props.chart} />
      <Lines {...props} />
      <Soundings chart={props.chart} water={props.water} />
    </>
  );
}
