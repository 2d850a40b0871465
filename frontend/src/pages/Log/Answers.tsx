/** What the log says by any of what was noted; any two against each other. */

import { keepPreviousData } from "@tanstack/react-query";
import { useState } from "react";
import { useSearchParams } from "wouter";
import type { Schemas } from "../../api/client";
import { routes } from "../../api/routes";
import { Failed } from "../../components/states";
import { useCatalogue } from "../../lib/catalogue";
import type { Filter } from "../../lib/log";
import { methodText } from "../../lib/methods";
import { MONTHS } from "../../lib/months";
import { paceText } from "../../lib/paces";
import { useReader } from "../../lib/session";
import { hoursText } from "../../lib/time";
import { bandText, temperatureTo } from "../../lib/units";
import { Field, Select } from "../../ui/controls";
import { OutingRow } from "./OutingRow";
import { rateText } from "./Rates";
import { words } from "./strings";

type Answers = Schemas["AnswersOut"];
type Group = Schemas["GroupOut"];
type By = Answers["by"];

/** What a group is called, in the angler's words and units. */
function useNames(told: Answers | undefined) {
  const { settings, say } = useReader();
  const prey = useCatalogue().data?.prey ?? [];
  const step = told?.step ?? 0;
  const unit = settings.temperature_unit;
  const by = told?.by;
  return (key: string): string => {
    const n = Number(key);
    if (by === "depth") return bandText(settings.depth_unit, n * step, (n + 1) * step);
    if (by === "surface" || by === "at_fly") {
      const [low, high] = [n, n + step].map((c) => Math.round(temperatureTo(unit, c)));
      return `${low} to ${high} °${unit.toUpperCase()}`;
    }
    if (by === "time") return words.time(n, n + step);
    if (by && words.named[by]) return words.named[by][key] ?? key;
    if (by === "month") return MONTHS[n - 1] ?? key;
    if (by === "pace") return say(paceText(key) || key);
    if (by === "method") return say(methodText(key));
    if (by === "prey") return say(prey.find((one) => one.key === key)?.name ?? key);
    return say(key);
  };
}

/** The outings a group's numbers come from. */
function Behind({ filter, by, group, name }: { filter: Filter; by: By; group: string; name: string }) {
  const { say } = useReader();
  const asked = routes.useQuery("get", "/api/log/behind", {
    params: { query: { ...filter, by, key: group } },
  });
  if (asked.isLoadingError) return <Failed error={asked.error} again={() => void asked.refetch()} />;
  return (
    <div data-testid="behind">
      <h3>{say(words.behind(name))}</h3>
      <ul className="corded">
        {asked.data?.map((outing) => (
          <OutingRow key={outing.id} outing={outing} />
        ))}
      </ul>
    </div>
  );
}

function Compared({ filter, by, pair, names }: { filter: Filter; by: By; pair: string[]; names: string[] }) {
  const { say } = useReader();
  const [a = "", b = ""] = pair;
  const [a_name = "", b_name = ""] = names;
  const asked = routes.useQuery("get", "/api/log/compare", {
    params: { query: { ...filter, by, a, b, a_name, b_name } },
  });
  if (asked.isLoadingError) return <Failed error={asked.error} again={() => void asked.refetch()} />;
  return (
    <p
      role="status"
      className="sticky top-0 z-[1] my-1 border-l-4 border-water bg-paper py-1.5 pl-3 font-semibold wide:top-14"
      data-testid="compared"
    >
      {asked.data ? say(asked.data.sentence) : words.comparing}
    </p>
  );
}

interface RowProps {
  group: Group;
  name: string;
  most: number;
  picked: boolean;
  onPick: () => void;
  open: boolean;
  onOpen: () => void;
}

function Row({ group, name, most, picked, onPick, open, onOpen }: RowProps) {
  const { takes } = group;
  const known = takes.per_hour !== null && takes.low !== null && takes.high !== null;
  return (
    <tr className="border-b border-rule">
      <th scope="row" className="text-left font-normal">
        <label className="flex min-h-11 cursor-pointer items-center gap-2 py-1">
          <input type="checkbox" checked={picked} onChange={onPick} className="size-6 shrink-0 accent-ink" />
          {name}
        </label>
      </th>
      <td className="whitespace-nowrap">
        <button
          type="button"
          aria-expanded={open}
          aria-label={words.behind(name)}
          onClick={onOpen}
          className="min-h-11 cursor-pointer underline"
        >
          {hoursText(takes.hours)}
        </button>
      </td>
      <td>{takes.count}</td>
      <td className="wide:min-w-36">
        {known ? (
          <>
            {rateText(takes.per_hour ?? 0)}{" "}
            <span className="whitespace-nowrap text-soft max-wide:block max-wide:text-[0.9rem]">
              {rateText(takes.low ?? 0)} to {rateText(takes.high ?? 0)}
            </span>
          </>
        ) : (
          "–"
        )}
        {known && (
          <svg aria-hidden="true" className="block h-2 w-full" viewBox="0 0 100 8" preserveAspectRatio="none">
            <path
              d={`M${(100 * (takes.low ?? 0)) / most} 4H${Math.min(100, (100 * (takes.high ?? 0)) / most)}`}
              stroke="var(--soft)"
              strokeWidth="2"
              strokeDasharray="2 1.5"
            />
            <path d={`M0 4H${(100 * (takes.per_hour ?? 0)) / most}`} stroke="var(--water)" strokeWidth="5" />
          </svg>
        )}
      </td>
    </tr>
  );
}

export default function Answers({ filter }: { filter: Filter }) {
  const [search, setSearch] = useSearchParams();
  const by = (search.get("by") ?? "fly") as By;
  const [picked, setPicked] = useState<string[]>([]);
  const [open, setOpen] = useState<string | null>(null);
  const asked = routes.useQuery(
    "get",
    "/api/log/answers",
    { params: { query: { ...filter, by } } },
    { placeholderData: keepPreviousData },
  );
  const name = useNames(asked.data);
  const groups = asked.data?.groups ?? [];
  const pair = picked.filter((key) => groups.some((group) => group.key === key)).slice(-2);
  const rates = groups.map((group) =>
    group.takes.hours >= 1 ? (group.takes.high ?? 0) : (group.takes.per_hour ?? 0),
  );
  const most = Math.max(0.1, ...rates);
  const pick = (key: string) =>
    setPicked(pair.includes(key) ? pair.filter((one) => one !== key) : [...pair, key].slice(-2));
  return (
    <section data-testid="answers">
      <h2 className="mb-1">{words.answers}</h2>
      <Field label={words.answersBy} className="max-w-56">
        {(p) => (
          <Select
            {...p}
            value={by}
            onChange={(event) => {
              const next = new URLSearchParams(search);
              next.set("by", event.target.value);
              setSearch(next);
              setPicked([]);
              setOpen(null);
            }}
          >
            {words.by.map((one) => (
              <option key={one.value} value={one.value}>
                {one.label}
              </option>
            ))}
          </Select>
        )}
      </Field>
      {asked.isLoadingError && <Failed error={asked.error} again={() => void asked.refetch()} />}
      {asked.data && groups.length === 0 && <p className="mt-2 text-soft">{words.noAnswers}</p>}
      {groups.length > 0 && (
        <>
          <p className="mt-1 text-soft">
            {by === "fly" || by === "prey" || by === "tone"
              ? words.teamAbout
              : by === "phase"
                ? words.phaseAbout
                : words.pickTwo}
          </p>
          {pair.length === 2 && <Compared filter={filter} by={by} pair={pair} names={pair.map(name)} />}
          <div className="overflow-x-auto">
            <table className="w-full max-w-xl [&_td]:pl-2 [&_th+th]:pl-2 wide:[&_td]:pl-3 wide:[&_th+th]:pl-3">
              <thead>
                <tr className="border-b-2 border-ink text-left">
                  <th scope="col">{words.by.find((one) => one.value === by)?.label}</th>
                  <th scope="col">{words.effort}</th>
                  <th scope="col">{words.takesShort}</th>
                  <th scope="col" className="wide:whitespace-nowrap">
                    {words.rate}
                  </th>
                </tr>
              </thead>
              <tbody>
                {groups.map((group) => (
                  <Row
                    key={group.key}
                    group={group}
                    name={name(group.key)}
                    most={most}
                    picked={pair.includes(group.key)}
                    onPick={() => pick(group.key)}
                    open={open === group.key}
                    onOpen={() => setOpen(open === group.key ? null : group.key)}
                  />
                ))}
              </tbody>
            </table>
          </div>
          {open !== null && groups.some((group) => group.key === open) && (
            <Behind filter={filter} by={by} group={open} name={name(open)} />
          )}
        </>
      )}
    </section>
  );
}
