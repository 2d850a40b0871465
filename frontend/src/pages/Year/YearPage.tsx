/** The season overlay: every profile of a year on one cord, and the surface through the weeks. */

import { keepPreviousData } from "@tanstack/react-query";
import { line } from "d3-shape";
import { useState } from "react";
import { Link, useSearchParams } from "wouter";
import type { Schemas } from "../../api/client";
import { routes } from "../../api/routes";
import { Column } from "../../column/Column";
import { useColumn } from "../../column/scale";
import { Empty, Failed, Loading } from "../../components/states";
import { TwoPane } from "../../components/TwoPane";
import { WaterTabs } from "../../components/WaterTabs";
import { WithWater } from "../../components/WithWater";
import { useReader } from "../../lib/session";
import { boxTime, dayText } from "../../lib/time";
import { depthText, temperatureText } from "../../lib/units";
import type { Water } from "../../lib/waters";
import { Select } from "../../ui/controls";
import { words } from "./strings";
import { YearCurve } from "./YearCurve";

type Profile = Schemas["SeasonProfileOut"];

export default function YearPage() {
  return <WithWater planned={false}>{(water) => <YearWork water={water} />}</WithWater>;
}

/** The month's letter at the top of each line, where there is room for it. */
function initials(profiles: Profile[], x: (t: number) => number, water: Water) {
  const marks: { id: string; x: number; letter: string }[] = [];
  for (const p of [...profiles].sort(
    (a, b) => (a.points[0]?.temperature_c ?? 0) - (b.points[0]?.temperature_c ?? 0),
  )) {
    const at = x(p.points[0]?.temperature_c ?? 0);
    if (at - (marks.at(-1)?.x ?? -99) < 13) continue;
    const month = Number(boxTime(new Date(p.taken_at), water.time_zone ?? "UTC").slice(5, 7));
    marks.push({ id: p.id, x: at, letter: words.months[month - 1] ?? "" });
  }
  return marks;
}

/** All profiles thin, the picked one strong with its readings; the axis runs from 0 to the warmest read. */
function Overlay({ profiles, picked, water }: { profiles: Profile[]; picked: string | null; water: Water }) {
  const scale = useColumn();
  const { settings } = useReader();
  const warmest = Math.max(10, ...profiles.flatMap((p) => p.points.map((q) => q.temperature_c)));
  const x0 = scale.cordX + 24;
  const x = (t: number) => x0 + ((scale.width - x0 - 56) * t) / warmest;
  const draw = line<Schemas["Point"]>()
    .x((p) => x(p.temperature_c))
    .y((p) => scale.y(p.depth_m));
  const chosen = profiles.find((p) => p.id === picked);
  const marks = [0, 5, 10, 15, 20, 25].filter((t) => t <= warmest);
  return (
    <g data-layer="year">
      {marks.map((t) => (
        <g key={t}>
          <path
            d={`M${x(t)} ${scale.surfaceY}V${scale.bedY}`}
            stroke="var(--warm)"
            strokeOpacity="0.25"
            strokeDasharray="1 6"
          />
          <text x={x(t)} y={scale.surfaceY - 12} textAnchor="middle" fontSize="13" fill="var(--warm)">
            {temperatureText(settings.temperature_unit, t, 0)}
          </text>
        </g>
      ))}
      {profiles.map((p) => (
        <path
          key={p.id}
          d={draw(p.points) ?? ""}
          fill="none"
          stroke="var(--warm)"
          strokeWidth="1.4"
          strokeOpacity={picked && p.id !== picked ? 0.5 : 0.7}
        />
      ))}
      {initials(profiles, x, water).map((mark) => (
        <text
          key={mark.id}
          className="halo"
          x={mark.x}
          y={scale.surfaceY + 18}
          textAnchor="middle"
          fontSize="12"
          fontWeight="700"
          fill="var(--warm)"
        >
          {mark.letter}
        </text>
      ))}
      {chosen && (
        <g>
          <path d={draw(chosen.points) ?? ""} fill="none" stroke="var(--warm)" strokeWidth="3.5" />
          {chosen.points.map((q) => (
            <circle
              key={q.depth_m}
              cx={x(q.temperature_c)}
              cy={scale.y(q.depth_m)}
              r="4"
              fill="var(--raised)"
              stroke="var(--warm)"
              strokeWidth="2"
            />
          ))}
          {chosen.thermocline_m !== null && (
            <path
              d={`M${scale.cordX + 8} ${scale.y(chosen.thermocline_m)}H${scale.width}`}
              stroke="var(--warm)"
              strokeDasharray="10 4 2 4"
            />
          )}
        </g>
      )}
    </g>
  );
}

function ProfileLine({
  profile,
  water,
  active,
  onPick,
}: {
  profile: Profile;
  water: Water;
  active: boolean;
  onPick: () => void;
}) {
  const { settings } = useReader();
  const first = profile.points[0];
  const last = profile.points.at(-1);
  const zone = water.time_zone ?? "UTC";
  return (
    <li className="knot">
      <button
        type="button"
        aria-pressed={active}
        onClick={onPick}
        className="min-h-11 w-full rounded px-1 text-left aria-pressed:bg-raised aria-pressed:font-bold"
      >
        {dayText(profile.taken_at, zone)}
        {profile.place && <span className="text-soft"> · {profile.place}</span>}
        <span className="block text-[0.92rem] text-soft">
          {first && `${words.surface} ${temperatureText(settings.temperature_unit, first.temperature_c)}`}
          {last &&
            last !== first &&
            `, ${words.bed} ${temperatureText(settings.temperature_unit, last.temperature_c)}`}
          {", "}
          {profile.thermocline_m !== null
            ? words.thermocline(depthText(settings.depth_unit, profile.thermocline_m))
            : words.states[profile.state]}
        </span>
      </button>
      {active && (
        <Link
          to={`/water?w=${water.id}&r=${profile.id}`}
          className="mr-4 inline-flex min-h-11 items-center font-semibold"
        >
          {words.open}
        </Link>
      )}
      {active && water.latitude_deg != null && (
        <a
          href={`/api/waters/${water.id}/readings/${profile.id}/profile.covjson`}
          download={`profile-${profile.taken_at.slice(0, 10)}.covjson`}
          className="inline-flex min-h-11 items-center"
        >
          {words.save}
        </a>
      )}
    </li>
  );
}

function YearWork({ water }: { water: Water }) {
  const { settings } = useReader();
  const [search, setSearch] = useSearchParams();
  const year = search.get("year");
  const [picked, setPicked] = useState<string | null>(null);
  const asked = routes.useQuery(
    "get",
    "/api/waters/{water_id}/season",
    { params: { path: { water_id: water.id }, query: year ? { year: Number(year) } : {} } },
    { placeholderData: keepPreviousData },
  );
  const data = asked.data;
  const profiles = data?.profiles ?? [];
  const deepest = Math.max(
    water.max_depth_m * 0.5,
    ...profiles.flatMap((p) => p.points.map((q) => q.depth_m)),
  );
  const shown = picked ?? profiles.at(-1)?.id ?? null;
  return (
    <TwoPane
      column={
        <Column
          bedM={Math.min(deepest, water.max_depth_m)}
          unit={settings.depth_unit}
          summary={words.column}
          className="h-full"
        >
          <Overlay profiles={profiles} picked={shown} water={water} />
        </Column>
      }
    >
      <div className="space-y-6">
        <div>
          <WaterTabs />
          <h1>{words.title}</h1>
          <p className="text-soft">{words.lead}</p>
        </div>
        {asked.isError && !data && <Failed error={asked.error} again={() => void asked.refetch()} />}
        {asked.isPending && <Loading what={words.working} />}
        {data && data.years.length === 0 && (
          <Empty title={words.none}>
            <p>{words.noneAbout}</p>
            <Link to={`/water?w=${water.id}`}>{words.toReading}</Link>
          </Empty>
        )}
        {data && data.years.length > 0 && (
          <>
            <p className="flex items-center gap-2 font-semibold">
              <label htmlFor="year">{words.year}</label>
              <Select
                id="year"
                className="!w-28"
                value={String(data.year)}
                onChange={(e) => {
                  setPicked(null);
                  setSearch((old) => {
                    old.set("year", e.target.value);
                    return old;
                  });
                }}
              >
                {data.years.map((y) => (
                  <option key={y} value={y}>
                    {y}
                  </option>
                ))}
              </Select>
            </p>
            <section>
              <h2>{words.curve}</h2>
              <YearCurve curve={data.curve} profiles={profiles} />
            </section>
            <section>
              <h2>{words.profiles(profiles.length)}</h2>
              <p className="text-soft">{words.pick}</p>
              <ol className="corded mt-1">
                {[...profiles].reverse().map((p) => (
                  <ProfileLine
                    key={p.id}
                    profile={p}
                    water={water}
                    active={p.id === shown}
                    onPick={() => setPicked(p.id)}
                  />
                ))}
              </ol>
            </section>
          </>
        )}
      </div>
    </TwoPane>
  );
}
