/** A leader cut to a wanted length: the list to tie from, to use on this rig or to print. */
import { useState } from "react";
import { ApiError, type Schemas } from "../../api/client";
import { useReader } from "../../lib/session";
import { lengthText } from "../../lib/units";
import { Button, Choice, Fault, Field, Select } from "../../ui/controls";
import { Amount, useUnits } from "./Amount";
import { faultAt, type RigDoc } from "./rig";
import { words } from "./strings";
import { useLeader } from "./useThread";

type Style = Schemas["LeaderRequest"]["style"];

export function LeaderCut({ rig, onChange }: { rig: RigDoc; onChange: (rig: RigDoc) => void }) {
  const { settings, say } = useReader();
  const unit = settings.depth_unit;
  const units = useUnits();
  const ask = useLeader();
  const [style, setStyle] = useState<Style>("swivel");
  const [length, setLength] = useState(15 * 0.3048);
  const [size, setSize] = useState(3);
  const problems = ask.error instanceof ApiError ? ask.error.problems : [];
  const flies = style === "team" ? Math.max(2, rig.flies.length) : style === "float" ? rig.flies.length : 1;
  const tie = (answer: Schemas["LeaderAnswer"]) => {
    const count = answer.flies_at_m.length;
    const kept = rig.flies.slice(-count);
    const spare = kept[0] ?? { name: "Fly", from_line_m: 0, dropper_m: 0, submerged_g: 0.05, sink_m_s: 0.07 };
    const tied = answer.flies_at_m.map((at, i) => ({
      ...(kept[i - (count - kept.length)] ?? spare),
      from_line_m: at,
      dropper_m: i === count - 1 ? 0 : 0.12,
    }));
    const float =
      answer.float_at_m !== null && rig.float
        ? { ...rig.float, from_line_m: answer.float_at_m }
        : (rig.float ?? null);
    onChange({ ...rig, leader: answer.pieces, flies: tied, float });
  };
  return (
    <details className="border-t border-rule">
      <summary className="min-h-11 cursor-pointer py-2 font-semibold">{words.cut}</summary>
      <div className="space-y-3">
        <Choice
          label={words.style}
          required
          value={style}
          options={
            words.styles.map((s) => ({ ...s, label: say(s.label) })) as { value: Style; label: string }[]
          }
          onChange={(v) => v && setStyle(v)}
        />
        <div className="flex flex-wrap items-end gap-3">
          <Amount
            label={style === "float" ? say(words.wantedFloat) : words.wanted}
            unit={units.length}
            value={length}
            onChange={setLength}
            problem={faultAt(problems, "length_m")}
            className="w-44"
          />
          <Field label={words.size} className="w-24">
            {(p) => (
              <Select {...p} value={size} onChange={(e) => setSize(Number(e.target.value))}>
                {[0, 1, 2, 3, 4, 5, 6].map((x) => (
                  <option key={x} value={x}>
                    {x}X
                  </option>
                ))}
              </Select>
            )}
          </Field>
          <Button
            onClick={() => ask.mutate({ style, length_m: length, x_size: size, flies })}
            disabled={ask.isPending}
          >
            {words.cut}
          </Button>
        </div>
        {problems.length > 0 && !faultAt(problems, "length_m") && problems[0] && (
          <Fault problem={problems[0]} />
        )}
        {ask.data && (
          <div className="print-only-this space-y-2">
            <table className="w-full max-w-lg" data-testid="cut-list">
              <thead>
                <tr className="border-b-2 border-ink text-left">
                  <th>{words.cutPart}</th>
                  <th className="text-right">{words.cutTied}</th>
                  <th className="pl-4 text-right">{words.cutOff}</th>
                  <th />
                </tr>
              </thead>
              <tbody>
                {ask.data.cuts.map((cut, i) => (
                  <tr key={i} className="border-b border-rule">
                    <th scope="row" className="py-1 text-left font-normal">
                      {say(cut.part)}
                    </th>
                    <td className="text-right font-semibold">{lengthText(unit, cut.length_m)}</td>
                    <td className="pl-4 text-right">{lengthText(unit, cut.cut_m)}</td>
                    <td className="pl-3 text-soft">
                      {cut.x_size !== null && `${cut.x_size}X · ${cut.diameter_mm?.toFixed(2)} mm `}
                      {cut.material}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            <p className="text-[0.92rem] text-soft">
              {lengthText(unit, ask.data.length_m)} {words.total}. {say(words.cutAbout)}
            </p>
            <p className="no-print flex gap-2">
              <Button look="main" onClick={() => ask.data && tie(ask.data)}>
                {words.useIt}
              </Button>
              <Button onClick={() => window.print()}>{words.print}</Button>
            </p>
          </div>
        )}
      </div>
    </details>
  );
}
