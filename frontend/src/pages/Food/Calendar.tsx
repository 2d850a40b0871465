import type { Schemas } from "../../api/client";
import { routes } from "../../api/routes";
import { Failed, Loading } from "../../components/states";
import { MONTHS } from "../../lib/months";
import { useReader } from "../../lib/session";
import { words } from "./strings";

type Row = Schemas["CalendarRowOut"];
const WEEKS = 52;

function monthOf(week: number): string {
  return MONTHS[Math.min(11, Math.floor(((week + 0.5) * 12) / WEEKS))] ?? "";
}

function Weeks({ row, thisWeek }: { row: Row; thisWeek: number }) {
  return (
    <svg
      viewBox={`0 0 ${WEEKS * 10} 22`}
      preserveAspectRatio="none"
      className="h-6 w-full"
      aria-hidden="true"
    >
      {row.weight.map((weight, week) => (
        <rect
          key={week}
          x={week * 10}
          y={22 - 22 * Math.max(weight, 0.03)}
          width={9.4}
          height={22 * Math.max(weight, 0.03)}
          fill="var(--weed)"
          fillOpacity={0.25 + 0.75 * weight}
        />
      ))}
      {row.recorded.map((week) => (
        <ellipse key={week} cx={week * 10 + 5} cy={5} rx={4} ry={4} fill="var(--take)" />
      ))}
      <path d={`M${thisWeek * 10 + 5} 0V22`} stroke="var(--ink)" strokeWidth="2.5" />
    </svg>
  );
}

export function Calendar({ waterId }: { waterId: string }) {
  const { say } = useReader();
  const asked = routes.useQuery("get", "/api/waters/{water_id}/calendar", {
    params: { path: { water_id: waterId } },
  });
  if (asked.isLoadingError) return <Failed error={asked.error} again={() => void asked.refetch()} />;
  if (!asked.data) return <Loading what={words.working} />;
  const { rows, this_week: thisWeek, sentence } = asked.data;
  const now = (row: Row) => Math.round((100 * (row.weight[thisWeek] ?? 0)) / Math.max(...row.weight, 0.01));
  return (
    <div>
      <p className="text-soft">{sentence}</p>
      <ul className="mt-2 space-y-1">
        <li
          aria-hidden="true"
          className="grid grid-cols-[9.5rem_1fr] gap-2 text-[0.85rem] text-soft max-wide:grid-cols-[6.5rem_1fr]"
        >
          <span />
          <span className="grid grid-cols-12">
            {words.months.map((month, i) => (
              <span key={i}>{month}</span>
            ))}
          </span>
        </li>
        {rows.map((row) => {
          const best = row.weight.indexOf(Math.max(...row.weight));
          return (
            <li
              key={row.key}
              className="grid grid-cols-[9.5rem_1fr] items-center gap-2 max-wide:grid-cols-[6.5rem_1fr]"
            >
              <span className="text-[0.95rem] leading-tight">
                {say(row.name)}
                <span className="block text-[0.8rem] text-soft">{words.ahead(row.shift_days)}</span>
                <span className="sr-only">{words.rowSays("", monthOf(best), now(row))}</span>
              </span>
              <Weeks row={row} thisWeek={thisWeek} />
            </li>
          );
        })}
      </ul>
      <p className="mt-1 text-[0.85rem] text-soft">{words.calendarKey}</p>
    </div>
  );
}
