/** The belief of the feeding depth through the day, on the cord: where it was thought to be, what was fished, what took. */

import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { also, routes } from "../../api/routes";
import { Column } from "../../column/Column";
import { TakeMark } from "../../column/EffortLayer";
import { useColumn } from "../../column/scale";
import { useReader } from "../../lib/session";
import { clockText } from "../../lib/time";
import { bandText, depthText } from "../../lib/units";
import { type Outing, type Spell, TAKE_KINDS } from "../../offline/overlay";
import { words } from "./strings";

type Day = Schemas["OverDayOut"];
type Moment = Day["moments"][number];

const ms = (iso: string) => new Date(iso).getTime();

function useOverDay(outing: Outing) {
  return useQuery(
    also(
      routes.queryOptions(
        "get",
        "/api/outings/{outing_id}/belief",
        { params: { path: { outing_id: outing.id } } },
        { retry: 1 },
      ),
      outing.spells.length,
      outing.events.length,
      outing.ended_at,
    ),
  );
}

/** How dark a cell is: the likeliest of the whole day is darkest. */
function Cells({ day, x }: { day: Day; x: (iso: string) => number }) {
  const scale = useColumn();
  const most = Math.max(...day.moments.flatMap((one) => one.mass), 1e-9);
  const cell = day.cell_m ?? 0.2;
  return (
    <g shapeRendering="crispEdges">
      {day.moments.slice(0, -1).map((one, i) => {
        const left = x(one.at);
        const wide = x((day.moments[i + 1] as Moment).at) - left;
        return one.mass.map((mass, z) =>
          mass / most < 0.08 ? null : (
            <rect
              key={`${one.at}-${z}`}
              x={left}
              y={scale.y(z * cell)}
              width={wide}
              height={scale.y((z + 1) * cell) - scale.y(z * cell)}
              fill="var(--water)"
              fillOpacity={0.75 * (mass / most)}
            />
          ),
        );
      })}
    </g>
  );
}

function Fished({ spells, x, end }: { spells: Spell[]; x: (iso: string) => number; end: string }) {
  const scale = useColumn();
  return (
    <g>
      {spells
        .filter((one) => one.low_m != null && one.high_m != null)
        .map((one) => (
          <rect
            key={one.id}
            x={x(one.started_at)}
            y={scale.y(one.low_m ?? 0)}
            width={Math.max(2, x(one.ended_at ?? end) - x(one.started_at))}
            height={Math.max(3, scale.y(one.high_m ?? 0) - scale.y(one.low_m ?? 0))}
            fill="none"
            stroke="var(--ink)"
            strokeWidth="1.5"
            strokeDasharray="4 3"
          >
            <title>{`${one.title}: ${bandText(scale.unit, one.low_m ?? 0, one.high_m ?? 0)}`}</title>
          </rect>
        ))}
    </g>
  );
}

function Through({ day, outing }: { day: Day; outing: Outing }) {
  const scale = useColumn();
  const start = ms((day.moments[0] as Moment).at);
  const end = (day.moments.at(-1) as Moment).at;
  const x0 = scale.cordX + 16;
  const x1 = scale.width - 16;
  const x = (iso: string) =>
    x0 + ((x1 - x0) * Math.min(Math.max(ms(iso) - start, 0), ms(end) - start)) / Math.max(ms(end) - start, 1);
  const here = outing.spells.filter((one) => one.place === day.place);
  const takes = outing.events.filter((e) => TAKE_KINDS.includes(e.kind) && e.depth_m != null);
  return (
    <g>
      <Cells day={day} x={x} />
      <Fished spells={here} x={x} end={end} />
      {takes
        .filter((e) => here.some((one) => one.id === e.spell_id))
        .map((e) => (
          <g key={e.id}>
            <title>{`${clockText(e.occurred_at, outing.time_zone)}: ${depthText(scale.unit, e.depth_m ?? 0)}`}</title>
            <circle
              cx={x(e.occurred_at)}
              cy={scale.y(e.depth_m ?? 0)}
              r="11"
              fill="var(--raised)"
              fillOpacity="0.8"
            />
            <TakeMark kind={e.kind} x={x(e.occurred_at)} y={scale.y(e.depth_m ?? 0)} />
          </g>
        ))}
      {[(day.moments[0] as Moment).at, end].map((at, i) => (
        <text
          key={at}
          className="halo"
          x={i ? x1 : x0}
          y={scale.surfaceY - 14}
          textAnchor={i ? "end" : "start"}
          fontSize="13"
          fill="var(--ink)"
        >
          {clockText(at, outing.time_zone)}
        </text>
      ))}
    </g>
  );
}

/** Where the advice was followed and where not, by the reading as it is now known. */
function Choices({ day, zone }: { day: Day; zone: string }) {
  const { say } = useReader();
  const made = day.chosen ?? [];
  if (made.length === 0) return null;
  const followed = made.filter((one) => one.followed).length;
  return (
    <details data-testid="choices">
      <summary className="min-h-11 cursor-pointer py-2 font-semibold">
        {words.choices(followed, made.length)}
      </summary>
      <p className="text-soft">{words.choicesAbout}</p>
      <ul className="space-y-1">
        {made.map((one) => (
          <li key={one.at} className={`border-l-4 pl-2 ${one.followed ? "border-water" : "border-edge"}`}>
            {clockText(one.at, zone)} <b>{one.followed ? words.asAdvised : words.otherwise}</b>{" "}
            {say(one.advised)}{" "}
            <span className="text-soft">
              {words.choiceChances(Math.round(100 * one.chance), Math.round(100 * one.chance_fished))}
            </span>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** The picture, and in words where half the chance lay at the start and at the end. */
export default function OverDay({ outing }: { outing: Outing }) {
  const { settings } = useReader();
  const { data } = useOverDay(outing);
  if (!data || data.moments.length < 2) return null;
  const unit = settings.depth_unit;
  const half = (one: Moment) => bandText(unit, one.half_top_m, one.half_bottom_m);
  const summary = words.overDay(half(data.moments[0] as Moment), half(data.moments.at(-1) as Moment));
  return (
    <section data-testid="over-day">
      <h2 className="mb-1">{words.overDayTitle(data.place)}</h2>
      <Column bedM={data.bed_m} unit={unit} summary={summary} className="h-80 w-full border-y-2 border-ink">
        <Through day={data} outing={outing} />
      </Column>
      <p className="mt-1">{summary}</p>
      <p className="text-soft">{words.overDayKey}</p>
      <Choices day={data} zone={outing.time_zone} />
    </section>
  );
}

export { Track } from "./Track";
