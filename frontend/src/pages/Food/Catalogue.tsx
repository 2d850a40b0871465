/** The prey catalogue: one food a line, opened for its stages, place, movement, size, colours and flies. */
import type { Schemas } from "../../api/client";
import { Failed, Loading } from "../../components/states";
import { useCatalogue } from "../../lib/catalogue";
import { MONTHS } from "../../lib/months";
import { useReader } from "../../lib/session";
import { words } from "./strings";

type Entry = Schemas["PreyEntryOut"];

function Months({ months }: { months: number[] }) {
  return (
    <svg viewBox="0 0 120 16" className="h-4 w-28 shrink-0" role="img" aria-label={best(months)}>
      {months.map((m, i) => (
        <rect
          key={i}
          x={i * 10}
          y={16 - 15 * m}
          width="8.5"
          height={Math.max(15 * m, 0.8)}
          fill="var(--weed)"
        />
      ))}
    </svg>
  );
}

/** The months near the season's best, in words. */
function best(months: number[]): string {
  const most = Math.max(...months);
  return MONTHS.filter((_, i) => (months[i] ?? 0) >= 0.85 * most).join(", ");
}

function Detail({ entry, families }: { entry: Entry; families: Record<string, string> }) {
  const { say } = useReader();
  const rows: [string, string][] = [
    [words.habitat, entry.habitat],
    ...entry.stages.map((s): [string, string] => [
      entry.stages.length > 1 ? s.name : words.moves,
      `${s.movement}; ${s.where.join(", then ")}`,
    ]),
    [words.size, `${entry.size_mm[0]} to ${entry.size_mm[1]} mm`],
    [words.hooks, `${entry.hooks[1]} to ${entry.hooks[0]}`],
    [words.colours, entry.colours.join(", ")],
    [words.warmth, `${entry.warmth_c[0]} to ${entry.warmth_c[1]} °C`],
    [
      words.hours,
      entry.hours[0] === 0 && entry.hours[1] === 24
        ? words.allDay
        : words.hourSpan(entry.hours[0] ?? 0, entry.hours[1] ?? 24),
    ],
    [
      words.flies,
      [...new Set(entry.stages.flatMap((s) => s.families))].map((f) => families[f] ?? f).join("; "),
    ],
    [words.source, entry.source],
  ];
  return (
    <dl className="grid gap-x-4 gap-y-1 pb-2 min-[34rem]:grid-cols-[7rem_1fr]">
      {rows.map(([name, value]) => (
        <div key={name} className="contents">
          <dt className="text-soft first-letter:uppercase">{name}</dt>
          <dd>{say(value)}</dd>
        </div>
      ))}
    </dl>
  );
}

export function Catalogue() {
  const { say } = useReader();
  const asked = useCatalogue();
  if (asked.isLoadingError) return <Failed error={asked.error} again={() => void asked.refetch()} />;
  if (!asked.data) return <Loading what={words.working} />;
  const { prey, families } = asked.data;
  return (
    <ul className="divide-y divide-rule border-y border-rule">
      {prey.map((entry) => (
        <li key={entry.key}>
          <details>
            <summary className="flex min-h-11 cursor-pointer flex-wrap items-center gap-x-3 py-1">
              <span className="font-semibold">{say(entry.name)}</span>
              <span className="ml-auto">
                <Months months={entry.months} />
              </span>
              <span className="w-full text-[0.92rem] text-soft">{say(entry.about)}</span>
            </summary>
            <Detail entry={entry} families={families} />
          </details>
        </li>
      ))}
    </ul>
  );
}
