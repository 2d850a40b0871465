/** Two set-ups side by side, row by row; what differs is set in bold. */
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { letter, setUpTitle } from "../../lib/cord";
import { setUpCount } from "../../lib/counted";
import { useReader } from "../../lib/session";
import { bandText, depthText, lengthText } from "../../lib/units";
import { Field, Select } from "../../ui/controls";
import { more } from "./moreStrings";
import { words } from "./strings";

type SetUp = Schemas["SetUpOut"];

function useRows() {
  const { say, settings } = useReader();
  const unit = settings.depth_unit;
  return (s: SetUp): [string, string][] => [
    [more.rows.depth, depthText(unit, s.estimate_m ?? s.target_m)],
    [more.rows.band, bandText(unit, s.low_m, s.high_m)],
    [
      more.rows.how,
      s.float_hang_m !== null
        ? say(words.hang(depthText(unit, s.float_hang_m), words.kinds[s.float_kind ?? "fixed"]))
        : s.count_s !== null
          ? setUpCount(unit, s)
          : "",
    ],
    [more.rows.rate, words.relative(s.relative)],
    [more.rows.line, say(s.line_title)],
    [more.rows.leader, lengthText(unit, s.leader_length_m)],
    [more.rows.flies, s.flies.map((f) => `${say(f.name)} ${f.hook}`).join(", ")],
    [more.rows.retrieve, say(s.retrieve.words)],
    [more.rows.rig, words.rigging(Math.round((s.rigging_s ?? 0) / 60), s.rod ?? null)],
    [more.rows.mind, s.cautions.map((c) => say(c.sentence)).join(" ")],
  ];
}

export default function Compare({ plan }: { plan: Schemas["PlanAnswer"] }) {
  const setUps = plan.set_ups;
  const { say } = useReader();
  const rows = useRows();
  const [pick, setPick] = useState<[number, number]>([0, Math.min(1, setUps.length - 1)]);
  const one = setUps[pick[0]] ?? setUps[0];
  const other = setUps[pick[1]] ?? setUps[1];
  if (!one || !other) return null;
  const left = rows(one);
  const right = rows(other);
  const choose = (label: string, at: 0 | 1) => (
    <Field label={label}>
      {(p) => (
        <Select
          {...p}
          value={pick[at]}
          onChange={(e) =>
            setPick(at === 0 ? [Number(e.target.value), pick[1]] : [pick[0], Number(e.target.value)])
          }
        >
          {setUps.map((s, i) => (
            <option key={s.key} value={i}>
              {letter(i)} · {setUpTitle(plan, s, say)}
            </option>
          ))}
        </Select>
      )}
    </Field>
  );
  return (
    <div>
      <div className="grid grid-cols-2 gap-3">
        {choose(more.compareFirst, 0)}
        {choose(more.compareSecond, 1)}
      </div>
      <table className="mt-2 w-full table-fixed">
        <tbody>
          {left.map(([name, text], i) => {
            const there = right[i]?.[1] ?? "";
            const look = text === there ? "" : "font-semibold";
            return (
              <tr key={name} className="border-t border-rule align-top">
                <th scope="row" className="w-24 py-1.5 pr-2 text-left font-normal text-soft">
                  {name}
                </th>
                <td className={`py-1.5 pr-3 ${look}`}>{text}</td>
                <td className={`py-1.5 ${look}`}>{there}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
