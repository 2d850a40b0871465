/** Was the plan right: where takes came in what it thought likely, beside where the time was fished; which reasons helped. */

import { keepPreviousData } from "@tanstack/react-query";
import { Link } from "wouter";
import type { Schemas } from "../../api/client";
import { routes } from "../../api/routes";
import { Failed } from "../../components/states";
import { FACTORS } from "../../lib/factors";
import type { Filter } from "../../lib/log";
import { useReader, useSaveSettings } from "../../lib/session";
import { dayText } from "../../lib/time";
import { Button } from "../../ui/controls";
import { useDone } from "../../ui/UndoBar";
import { words } from "./strings";

type Check = Schemas["PlanCheckOut"];
type Learnt = Record<Check["learnt"][number]["key"], number>;
const SIZE = 100;

const percent = (share: number) => `${Math.round(100 * share)} %`;

/** Shares promised against shares seen: on the slanted line a plan's shares mean what they say. */
function Picture({ points }: { points: Check["points"] }) {
  const at = (x: number, y: number) => `${SIZE * x} ${SIZE * (1 - y)}`;
  const line = (of: (p: Check["points"][number]) => number) =>
    `M${at(0, 0)}${points.map((p) => `L${at(p.share, of(p))}`).join("")}L${at(1, 1)}`;
  return (
    <figure className="max-w-sm">
      <svg viewBox="-18 -6 130 124" role="img" aria-label={words.checkPicture} className="w-full">
        <path d={`M0 0V${SIZE}H${SIZE}`} fill="none" stroke="var(--edge)" />
        <path d={`M${at(0, 0)}L${at(1, 1)}`} stroke="var(--soft)" strokeWidth="0.7" />
        {points.map((p) => (
          <path
            key={p.share}
            d={`M${at(p.share, p.low)}L${at(p.share, p.high)}`}
            stroke="var(--soft)"
            strokeWidth="1.6"
            strokeDasharray="1.6 1.2"
          />
        ))}
        <path
          d={line((p) => p.fished)}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="1"
          strokeDasharray="4 2.5"
        />
        <path d={line((p) => p.seen)} fill="none" stroke="var(--take)" strokeWidth="2" />
        {[0, 0.5, 1].map((share) => (
          <g key={share} fill="var(--ink)" fontSize="5.2">
            <text x={SIZE * share} y={SIZE + 7} textAnchor="middle">
              {percent(share)}
            </text>
            <text x={-2} y={SIZE * (1 - share) + 2} textAnchor="end">
              {percent(share)}
            </text>
          </g>
        ))}
        <text x={SIZE / 2} y={SIZE + 15} textAnchor="middle" fontSize="5.2" fill="var(--ink)">
          {words.checkAcross}
        </text>
      </svg>
      <figcaption className="text-[0.92rem] text-soft leading-tight">{words.checkKey}</figcaption>
    </figure>
  );
}

function says(row: Check["factors"][number]): string {
  if (row.low > 0) return words.helped;
  if (row.high < 0) return words.misled;
  return words.neither;
}

/** What the takes teach of the plan's own figures: offered where it is clear, never taken over by itself, and taken back. */
function Taught({ rows }: { rows: Check["learnt"] }) {
  const { settings } = useReader();
  const save = useSaveSettings();
  const done = useDone();
  const usual: Learnt = { notice: 1, warmer_c: 0 };
  const now: Learnt = settings.learnt ?? usual;
  const change = (key: keyof Learnt, value: number, text: string) => {
    const was = now[key];
    save.mutate({ ...settings, learnt: { ...now, [key]: value } });
    done({ text, undo: () => save.mutate({ ...settings, learnt: { ...now, [key]: was } }) });
  };
  const keys = (["notice", "warmer_c"] as const).filter(
    (key) => now[key] !== usual[key] || rows.some((row) => row.key === key),
  );
  if (keys.length === 0) return null;
  return (
    <div data-testid="learnt">
      <h3>{words.taught}</h3>
      {keys.map((key) => {
        const row = rows.find((one) => one.key === key);
        return (
          <div key={key} className="mt-1">
            {row && <p>{row.sentence}</p>}
            {now[key] !== usual[key] && <p>{words.reckons[key](now[key])}</p>}
            <div className="flex flex-wrap gap-2">
              {row?.clear && row.value !== now[key] && (
                <Button disabled={save.isPending} onClick={() => change(key, row.value, words.takenOver)}>
                  {words.takeOver}
                </Button>
              )}
              {now[key] !== usual[key] && (
                <Button disabled={save.isPending} onClick={() => change(key, usual[key], words.takenBack)}>
                  {words.takeBack}
                </Button>
              )}
            </div>
          </div>
        );
      })}
      {save.isError && <Failed error={save.error} />}
    </div>
  );
}

export default function PlanCheck({ filter }: { filter: Filter }) {
  const asked = routes.useQuery(
    "get",
    "/api/log/plans",
    { params: { query: filter } },
    { placeholderData: keepPreviousData },
  );
  if (asked.isLoadingError) return <Failed error={asked.error} again={() => void asked.refetch()} />;
  const told = asked.data;
  if (!told) return null;
  const half = told.points.filter((p) => p.share === 0.5 || p.share === 0.8);
  return (
    <section data-testid="plan-check" className="space-y-2">
      <h2>{words.check}</h2>
      <p>{told.sentence}</p>
      {told.points.length === 0 && <p className="text-soft">{words.checkEmpty(told.outings)}</p>}
      {told.points.length > 0 && (
        <div className="flex flex-wrap items-start gap-x-8 gap-y-3">
          <Picture points={told.points} />
          <div className="min-w-64 space-y-3">
            <table className="w-full [&_td]:pl-3 [&_th+th]:pl-3">
              <thead>
                <tr className="border-b-2 border-ink text-left">
                  <th scope="col">{words.promised}</th>
                  <th scope="col">{words.seen}</th>
                  <th scope="col">{words.fishedThere}</th>
                </tr>
              </thead>
              <tbody>
                {half.map((p) => (
                  <tr key={p.share} className="border-b border-rule">
                    <th scope="row" className="py-1 text-left font-normal">
                      {percent(p.share)}
                    </th>
                    <td>
                      {percent(p.seen)}{" "}
                      <span className="whitespace-nowrap text-soft">
                        ({Math.round(100 * p.low)} to {percent(p.high)})
                      </span>
                    </td>
                    <td>{percent(p.fished)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            {told.factors.length > 0 && (
              <table className="w-full [&_td]:pl-3">
                <caption className="text-left font-bold">{words.reasons}</caption>
                <tbody>
                  {told.factors.map((row) => (
                    <tr key={row.name} className="border-b border-rule">
                      <th scope="row" className="py-1 text-left font-normal">
                        {FACTORS[row.name] ?? row.name}
                      </th>
                      <td>{says(row)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )}
          </div>
        </div>
      )}
      {told.expected_sentence && (
        <details data-testid="expected">
          <summary className="min-h-11 cursor-pointer py-2">{told.expected_sentence}</summary>
          <h3>{words.expectedList}</h3>
          <ul>
            {told.expected.map((one) => (
              <li key={one.outing_id}>
                <Link to={`/log/${one.outing_id}`}>{dayText(`${one.on}T12:00:00Z`, "UTC")}</Link>:{" "}
                {words.expectedRow(one.expected.toFixed(1), one.seen)}
              </li>
            ))}
          </ul>
        </details>
      )}
      <Taught rows={told.learnt} />
    </section>
  );
}
