/** A year on one water, by depth and day: what was fished, what came, over the lines of equal temperature. */

import { keepPreviousData } from "@tanstack/react-query";
import { line } from "d3-shape";
import { Link, useSearchParams } from "wouter";
import type { Schemas } from "../../api/client";
import { routes } from "../../api/routes";
import { Column } from "../../column/Column";
import { useColumn } from "../../column/scale";
import { Empty, Failed, Loading } from "../../components/states";
import { WithWater } from "../../components/WithWater";
import { MONTHS } from "../../lib/months";
import { useReader } from "../../lib/session";
import { hoursText } from "../../lib/time";
import { depthText, temperatureText } from "../../lib/units";
import type { Water } from "../../lib/waters";
import { Field, Select } from "../../ui/controls";
import { words } from "./strings";

type Season = Schemas["SeasonPictureOut"];
type Stretch = Season["stretches"][number];
const DAYS = 366;

export default function SeasonPage() {
  return <WithWater planned={false}>{(water) => <SeasonWork key={water.id} water={water} />}</WithWater>;
}

/** The day of the year as people write it. */
function dayOf(day: number): string {
  const date = new Date(Date.UTC(2023, 0, Math.floor(day)));
  return `${date.getUTCDate()} ${MONTHS[date.getUTCMonth()]?.slice(0, 3)}`;
}

function stretchWords(unit: "m" | "ft", one: Stretch): string {
  return `${dayOf(one.day)}, ${depthText(unit, one.depth_m)}: ${words.hoursAndTakes(hoursText(one.hours), one.takes)}`;
}

function Picture({ season }: { season: Season }) {
  const scale = useColumn();
  const { settings } = useReader();
  const x0 = scale.cordX + 22;
  const wide = scale.width - x0 - 14;
  const x = (day: number) => x0 + (wide * (day - 1)) / DAYS;
  const draw = line<[number, number]>()
    .x((p) => x(p[0]))
    .y((p) => scale.y(p[1]));
  const narrow = wide < 480;
  return (
    <g data-layer="season">
      {MONTHS.map((name, n) => (
        <g key={name}>
          <path
            d={`M${x(1 + (n * DAYS) / 12)} ${scale.surfaceY}V${scale.bedY}`}
            stroke="var(--ink)"
            strokeOpacity="0.14"
          />
          <text
            className="halo"
            x={x(1 + ((n + 0.5) * DAYS) / 12)}
            y={scale.surfaceY - 14}
            textAnchor="middle"
            fontSize="13"
            fill="var(--ink)"
          >
            {name.slice(0, narrow ? 1 : 3)}
          </text>
        </g>
      ))}
      {season.isotherms.map((one) =>
        one.runs.map((run) => {
          const points = run as [number, number][];
          const last = points.at(-1) ?? [0, 0];
          return (
            <g key={`${one.temperature_c}-${points[0]?.[0]}`}>
              <path d={draw(points) ?? ""} fill="none" stroke="var(--warm)" strokeWidth="1.8" />
              <text
                className="halo"
                x={x(last[0]) + 3}
                y={scale.y(last[1]) + 4}
                fontSize="12"
                fill="var(--warm)"
              >
                {temperatureText(settings.temperature_unit, one.temperature_c, 0)}
              </text>
            </g>
          );
        }),
      )}
      {season.stretches.map((one) => {
        const long = Math.max(4, 3.2 * one.hours);
        return (
          <g key={`${one.day}-${one.depth_m}`}>
            <title>{stretchWords(scale.unit, one)}</title>
            <rect
              x={x(one.day) - long / 2}
              y={scale.y(one.depth_m) - 4}
              width={long}
              height="8"
              fill="var(--weed)"
              fillOpacity="0.45"
              stroke="var(--weed)"
            />
            {one.takes > 0 && (
              <circle
                cx={x(one.day)}
                cy={scale.y(one.depth_m)}
                r={3 + 1.4 * Math.sqrt(one.takes)}
                fill="var(--raised)"
                fillOpacity="0.55"
                stroke="var(--take)"
                strokeWidth="2.4"
              />
            )}
          </g>
        );
      })}
    </g>
  );
}

function Rows({ season }: { season: Season }) {
  const { settings } = useReader();
  return (
    <details>
      <summary className="min-h-11 cursor-pointer font-semibold">{words.asTable}</summary>
      <ul className="columns-1 wide:columns-2">
        {season.stretches.map((one) => (
          <li key={`${one.day}-${one.depth_m}`}>{stretchWords(settings.depth_unit, one)}</li>
        ))}
      </ul>
    </details>
  );
}

function SeasonWork({ water }: { water: Water }) {
  const { settings } = useReader();
  const [search, setSearch] = useSearchParams();
  const year = Number(search.get("year")) || new Date().getFullYear();
  const asked = routes.useQuery(
    "get",
    "/api/log/season",
    { params: { query: { water_id: water.id, year } } },
    { placeholderData: keepPreviousData },
  );
  if (asked.isPending) return <Loading what={words.openingSeason} />;
  if (asked.isLoadingError) return <Failed error={asked.error} again={() => void asked.refetch()} />;
  const season = asked.data as Season;
  const years = [...new Set([year, ...season.years])].sort((a, b) => b - a);
  const hours = season.stretches.reduce((sum, one) => sum + one.hours, 0);
  const takes = season.stretches.reduce((sum, one) => sum + one.takes, 0);
  const none = season.stretches.length === 0 && season.isotherms.length === 0;
  return (
    <div className="mx-auto w-full max-w-5xl space-y-3 px-4 py-5">
      <header className="flex flex-wrap items-end gap-x-6 gap-y-2">
        <div>
          <Link to="/log">{words.title}</Link>
          <h1>{words.season(water.name)}</h1>
        </div>
        <Field label={words.year} className="w-28">
          {(p) => (
            <Select
              {...p}
              value={String(year)}
              onChange={(e) => {
                const next = new URLSearchParams(search);
                next.set("year", e.target.value);
                setSearch(next);
              }}
            >
              {years.map((one) => (
                <option key={one}>{one}</option>
              ))}
            </Select>
          )}
        </Field>
      </header>
      {none ? (
        <Empty title={words.noSeason}>
          <p>{words.noSeasonAbout}</p>
        </Empty>
      ) : (
        <>
          <div className="h-[62vh] min-h-80 border-2 border-ink">
            <Column
              bedM={season.max_depth_m}
              unit={settings.depth_unit}
              summary={words.seasonSays(hoursText(hours), takes)}
              className="h-full"
            >
              <Picture season={season} />
            </Column>
          </div>
          <p className="text-soft">{words.seasonKey}</p>
          <Rows season={season} />
        </>
      )}
    </div>
  );
}
