/** An outing in a list: its day, what came of it, what was read on it. */
import { Link } from "wouter";
import type { Schemas } from "../../api/client";
import { useReader } from "../../lib/session";
import { dayText, hoursText } from "../../lib/time";
import { temperatureText } from "../../lib/units";
import { words } from "./strings";

export function OutingRow({ outing }: { outing: Schemas["OutingSummary"] }) {
  const { say, settings } = useReader();
  return (
    <li className="knot border-b border-rule">
      <Link to={`/log/${outing.id}`} className="block py-1.5 no-underline">
        <span className="font-bold underline">{dayText(outing.started_at, outing.time_zone)}</span> ·{" "}
        {outing.water_name}
        {outing.ended_at === null && <b className="text-take"> · {words.running}</b>}
        <span className="block">
          {words.row(outing.takes, outing.landed, hoursText(outing.hours))}
          <span className="text-soft"> · {say(outing.methods.join(", "))}</span>
        </span>
        {(outing.surface_c != null || outing.wind) && (
          <span className="block text-soft">
            {words.read(
              outing.surface_c == null ? "" : temperatureText(settings.temperature_unit, outing.surface_c),
              [outing.wind, outing.wind_m_s == null ? "" : say(`${outing.wind_m_s} m/s`)]
                .filter(Boolean)
                .join(" "),
            )}
          </span>
        )}
        {outing.note && <span className="block text-soft italic">{outing.note}</span>}
      </Link>
    </li>
  );
}
