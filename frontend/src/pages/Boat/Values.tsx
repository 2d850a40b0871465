/** The live values, large; old ones pale and with their age. */
import type { FeedState } from "../../lib/feed";
import { useReader } from "../../lib/session";
import { depthText, pointOf, temperatureText, WIND_LABELS, windTo } from "../../lib/units";
import { words } from "./strings";

export const OLD_S = 5;

function Value({
  name,
  value,
  age,
  note,
}: {
  name: string;
  value: string | null;
  age: number | null;
  note?: string;
}) {
  const old = age !== null && age > OLD_S;
  return (
    <div className={old ? "opacity-60" : ""}>
      <dt className="text-soft">{name}</dt>
      <dd>
        <span className="text-[2.1rem] leading-tight font-bold">{value ?? words.none}</span>
        <span className="block text-[0.92rem]">
          {note} {old && age !== null && <b className="text-warm">{words.age(age.toFixed(0))}</b>}
        </span>
      </dd>
    </div>
  );
}

export function Values({ feed }: { feed: FeedState }) {
  const { settings } = useReader();
  const wind =
    feed.wind_m_s === null
      ? null
      : `${windTo(settings.wind_unit, feed.wind_m_s).toFixed(settings.wind_unit === "bft" ? 0 : 1)} ${WIND_LABELS[settings.wind_unit]}`;
  return (
    <dl className="grid grid-cols-2 gap-4 min-[34rem]:grid-cols-3">
      <Value
        name={words.depth}
        value={feed.depth_m === null ? null : depthText(settings.depth_unit, feed.depth_m)}
        age={feed.depth_age_s}
      />
      <Value
        name={words.temperature}
        value={
          feed.temperature_c === null ? null : temperatureText(settings.temperature_unit, feed.temperature_c)
        }
        age={feed.temperature_age_s}
        note={feed.temperature_c === null ? "" : feed.steady ? words.steady : words.moving}
      />
      <Value
        name={words.wind}
        value={wind}
        age={feed.wind_age_s}
        note={
          feed.wind_from_deg === null
            ? ""
            : `${words.from(pointOf(feed.wind_from_deg))}${feed.wind_true ? "" : `, ${words.felt}`}`
        }
      />
    </dl>
  );
}
