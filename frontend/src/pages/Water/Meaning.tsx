/** What the reading means, topic by topic: a few sentences each, the numbers a click away. */
import type { ReactNode } from "react";
import { Link } from "wouter";
import type { Meaning as Answer } from "../../lib/meaning";
import { useReader } from "../../lib/session";
import { depthText, distanceText, pointOf, temperatureText, WIND_LABELS, windTo } from "../../lib/units";
import { words } from "./strings";

function Topic({ title, lines, children }: { title: string; lines: string[]; children?: ReactNode }) {
  const { say } = useReader();
  if (lines.length === 0 && !children) return null; // a topic with nothing to say is left out
  return (
    <div>
      <h3>{title}</h3>
      <ul className="corded space-y-1">
        {lines.map((line) => (
          <li key={line} className="knot">
            {say(line)}
          </li>
        ))}
      </ul>
      {children}
    </div>
  );
}

type Row = readonly [string, string];

function Numbers({ rows }: { rows: (Row | null)[] }) {
  const shown = rows.filter((row): row is Row => row !== null);
  if (shown.length === 0) return null;
  return (
    <details className="ml-[1.75rem]">
      <summary className="min-h-9 cursor-pointer py-1 text-[0.92rem] text-soft">{words.numbers}</summary>
      <dl className="grid max-w-md grid-cols-[1fr_auto] gap-x-4 gap-y-0.5">
        {shown.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-soft">{name}</dt>
            <dd className="text-right font-semibold">{value}</dd>
          </div>
        ))}
      </dl>
    </details>
  );
}

const num = (name: string, value: number | null, digits: number, unit: string): Row | null =>
  value === null ? null : [name, `${value.toFixed(digits)} ${unit}`.trim()];

function Layers({ meaning }: { meaning: Answer }) {
  const { settings } = useReader();
  const { layers } = meaning;
  const s = layers.stability;
  const unit = settings.depth_unit;
  const moves = layers.state === "layered" || layers.state === "weak";
  return (
    <Topic title={words.topics.layers} lines={[layers.sentence, ...(moves ? [s.sentence] : [])]}>
      <Numbers
        rows={[
          layers.main ? [words.steepest, words.perMetre(layers.main.drop_c_per_m)] : null,
          num(words.schmidt, s.schmidt_j_m2, 0, "J/m²"),
          num(words.wedderburn, s.wedderburn, 1, ""),
          num(words.lakeNumber, s.lake_number, 1, ""),
          s.tilt_m === null ? null : [words.tilt, `± ${depthText(unit, s.tilt_m)}`],
          num(words.seiche, s.seiche_h, 1, "h"),
        ]}
      />
    </Topic>
  );
}

function Fish({ meaning }: { meaning: Answer }) {
  const lines = [
    ...(meaning.behaviour && meaning.approach ? [words.behaves(meaning.behaviour, meaning.approach)] : []),
    ...(meaning.welfare && meaning.welfare.level !== "ok" ? [meaning.welfare.sentence] : []),
    ...meaning.species.map((s) => s.sentence),
    ...meaning.species.map((s) => s.feeling),
    ...(meaning.oxygen ? [meaning.oxygen.sentence] : []),
  ];
  return <Topic title={words.topics.fish} lines={lines} />;
}

function waveText(wind: NonNullable<Answer["wind"]>, unit: "m" | "ft"): string {
  if (wind.wave_m === null || wind.fetch_m === null) return words.noFetch;
  const run = `${distanceText(unit, wind.fetch_m)} (${words.fetchFrom[wind.fetch_from]})`;
  return wind.wave_m < 0.05 ? words.noWaves(run) : words.waves(depthText(unit, wind.wave_m, 2), run);
}

function Wind({ meaning }: { meaning: Answer }) {
  const { settings } = useReader();
  const wind = meaning.wind;
  if (!wind) return null;
  const unit = settings.depth_unit;
  const speed = (v: number) =>
    `${windTo(settings.wind_unit, v).toFixed(settings.wind_unit === "bft" ? 0 : 1)} ${WIND_LABELS[settings.wind_unit]}`;
  const drift = (what: "surface" | "boat" | "drogue" | "float"): Row | null => {
    const range = wind.drift[what];
    return range
      ? [
          words.drift[what],
          `${(range.low_m_s * 100).toFixed(0)} to ${(range.high_m_s * 100).toFixed(0)} cm/s`,
        ]
      : null;
  };
  const lines = [
    wind.sentence,
    waveText(wind, unit),
    ...(wind.boat !== "ok" ? [words.boat[wind.boat]] : []),
    ...wind.places.map((p) => p.sentence),
    ...meaning.wind_turns,
  ];
  return (
    <Topic title={words.topics.wind} lines={lines}>
      <Numbers
        rows={[
          [words.wind, speed(wind.wind_m_s)],
          num(words.wavePeriod, wind.period_s, 1, "s"),
          wind.wave_length_m === null ? null : [words.waveLength, depthText(unit, wind.wave_length_m)],
          drift("surface"),
          drift("float"),
          drift("boat"),
          drift("drogue"),
          wind.chill_c === null
            ? null
            : [words.chill, temperatureText(settings.temperature_unit, wind.chill_c, 0)],
          [words.waveMethod, wind.wave_method],
        ]}
      />
    </Topic>
  );
}

function Light({ meaning }: { meaning: Answer }) {
  const { settings } = useReader();
  const { light } = meaning;
  const { now } = light;
  const unit = settings.depth_unit;
  const lines = [
    ...light.sentences,
    light.comfort_m > 0.05 ? words.lightEases(depthText(unit, light.comfort_m)) : words.lightEasy,
    ...(now.look_deg !== null ? [words.look(pointOf(now.look_deg), now.sun_deg.toFixed(0))] : []),
    ...(now.glare_from_deg !== null && now.glare_to_deg !== null
      ? [words.glare(pointOf(now.glare_from_deg), pointOf(now.glare_to_deg))]
      : []),
  ];
  return (
    <Topic title={words.topics.light} lines={lines}>
      <Numbers
        rows={[
          [words.lux, `${now.lux.toLocaleString("en-GB")} lx`],
          [words.secchiUsed, depthText(unit, light.secchi_m)],
          [
            words.twilightDepth,
            `${depthText(unit, now.twilight_low_m, 0)} … ${depthText(unit, now.twilight_high_m, 0)}`,
          ],
        ]}
      />
    </Topic>
  );
}

function Food({ meaning, waterId }: { meaning: Answer; waterId: string }) {
  const { say } = useReader();
  const { food } = meaning;
  const lines = [
    ...(food.keyed ? [food.keyed.sentence] : []),
    ...food.moves.slice(0, 2).map((m) => m.sentence),
  ];
  return (
    <Topic title={words.topics.food} lines={lines}>
      <ul className="mt-1 max-w-md">
        {food.shares.slice(0, 4).map((one) => (
          <li key={one.key} className="grid grid-cols-[1fr_6rem_3.5rem] items-center gap-2">
            <span>{say(one.name)}</span>
            <span className="h-3 border border-weed">
              <span className="block h-full bg-weed" style={{ width: `${Math.round(one.share * 100)}%` }} />
            </span>
            <span title={words.bySeason(Math.round(one.season_share * 100))}>
              {Math.round(one.share * 100)} %
            </span>
          </li>
        ))}
      </ul>
      <Link to={`/food?w=${waterId}`} className="inline-flex min-h-11 items-center">
        {words.toFood}
      </Link>
    </Topic>
  );
}

function Cautions({ meaning }: { meaning: Answer }) {
  const { say } = useReader();
  const shown = meaning.cautions.filter((c) => c.level !== "note");
  if (shown.length === 0) return null;
  return (
    <ul aria-label={words.cautions} className="space-y-1">
      {shown.map((c) => (
        <li key={c.code} className={`border-l-4 border-warm pl-2 ${c.level === "stop" ? "font-bold" : ""}`}>
          {say(c.sentence)}
        </li>
      ))}
    </ul>
  );
}

export default function Meaning({ meaning, waterId }: { meaning: Answer; waterId: string }) {
  return (
    <section aria-labelledby="means" aria-live="polite" className="space-y-4">
      <h2 id="means">{words.means}</h2>
      <Cautions meaning={meaning} />
      <Layers meaning={meaning} />
      <Fish meaning={meaning} />
      <Topic title={words.topics.edges} lines={meaning.edges.map((e) => e.sentence)} />
      <Wind meaning={meaning} />
      <Light meaning={meaning} />
      <Food meaning={meaning} waterId={waterId} />
      {meaning.guessed.length > 0 && <p className="text-soft">{words.guessed(meaning.guessed.join(", "))}</p>}
      <p className="text-[0.92rem] text-soft">{words.localRules}</p>
    </section>
  );
}
