/** The parts of a set-up made by hand: each change is planned at once, and its path moves on the cord. */
import { useState } from "react";
import type { Schemas } from "../../api/client";
import {
  HandMade_float_hang_m_least,
  HandMade_float_hang_m_most,
  HandMade_let_down_m_least,
  HandMade_let_down_m_most,
} from "../../api/generated/limits";
import type { HandMade } from "../../lib/day";
import { useKit } from "../../lib/kit";
import { PACES } from "../../lib/paces";
import { useReading } from "../../lib/reading";
import { useReader } from "../../lib/session";
import { boxText, depthFrom, depthTo, typedNumber } from "../../lib/units";
import { within } from "../../lib/within";
import { Button, Choice, Field, NumberBox, Select, Tick } from "../../ui/controls";
import { useDone } from "../../ui/UndoBar";
import { more } from "./moreStrings";
import { words } from "./strings";

type Fly = Schemas["FlyOut"];
const w = more.editor;
const COUNT_STEP_S = 5;

interface Props {
  index: number;
  made: HandMade;
  /** The count it was given, where it was worked out. */
  countS: number | null;
  leaderM: number | null;
}

function FlyRow({
  index,
  at,
  made,
  flies,
  onChange,
}: {
  index: number;
  at: number;
  made: HandMade;
  flies: Fly[];
  onChange: (part: Partial<HandMade>) => void;
}) {
  const { say } = useReader();
  const { problemAt } = useReading("problemAt");
  const key = made.flies[at];
  const fly = flies.find((f) => f.id === key);
  const set = (list: (string | number | null)[], value: string | number | null) =>
    list.map((one, k) => (k === at ? value : one));
  const hooks = made.flies.map((_, k) => made.hooks[k] ?? null);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_6.5rem] gap-2">
      <Field label={w.flies(at, made.flies.length)} problem={problemAt(`by_hand[${index}].flies[${at}]`)}>
        {(p) => (
          <Select
            {...p}
            value={key}
            onChange={(e) =>
              onChange({
                flies: set(made.flies, e.target.value) as string[],
                hooks: set(hooks, null) as null[],
              })
            }
          >
            {flies
              .filter((f) => f.stock !== 0 || f.id === key)
              .map((f) => (
                <option key={f.id} value={f.id}>
                  {say(f.name)}
                </option>
              ))}
          </Select>
        )}
      </Field>
      <Field label={w.hook}>
        {(p) => (
          <Select
            {...p}
            value={hooks[at] ?? ""}
            onChange={(e) =>
              onChange({
                hooks: set(hooks, e.target.value ? Number(e.target.value) : null) as (number | null)[],
              })
            }
          >
            <option value="">{w.anyHook}</option>
            {(fly?.hooks ?? []).map((hook) => (
              <option key={hook} value={hook}>
                {hook}
              </option>
            ))}
          </Select>
        )}
      </Field>
    </div>
  );
}

function MetresBox({
  label,
  value,
  placeholder,
  onChange,
}: {
  label: string;
  value: number | null;
  placeholder?: string;
  onChange: (m: number | null) => void;
}) {
  const { settings } = useReader();
  const unit = settings.depth_unit;
  const [text, setText] = useState(value === null ? "" : boxText(depthTo(unit, value), unit === "m" ? 2 : 1));
  return (
    <Field label={label} className="w-36">
      {(p) => (
        <NumberBox
          {...p}
          unit={unit}
          placeholder={placeholder}
          value={text}
          onChange={(e) => {
            setText(e.target.value);
            const typed = typedNumber(e.target.value);
            if (typed === null) onChange(null);
            else if (!Number.isNaN(typed)) onChange(depthFrom(unit, typed));
          }}
        />
      )}
    </Field>
  );
}

function HowDeep({
  made,
  countS,
  leaderM,
  onChange,
}: {
  made: HandMade;
  countS: number | null;
  leaderM: number | null;
  onChange: (part: Partial<HandMade>) => void;
}) {
  const { settings } = useReader();
  const unit = settings.depth_unit;
  if (made.float_hang_m != null)
    return (
      <MetresBox
        label={w.hang}
        value={made.float_hang_m}
        onChange={(m) =>
          m !== null &&
          within(m, HandMade_float_hang_m_least, HandMade_float_hang_m_most) &&
          onChange({ float_hang_m: m })
        }
      />
    );
  if (made.style === "dangle")
    return (
      <MetresBox
        label={w.letDown}
        value={made.let_down_m ?? null}
        placeholder={w.workOut}
        onChange={(m) =>
          (m === null || within(m, HandMade_let_down_m_least, HandMade_let_down_m_most)) &&
          onChange({ let_down_m: m })
        }
      />
    );
  if (made.style === "drifted") return null;
  const count = made.count_s ?? countS ?? 10;
  return (
    <div className="flex flex-wrap items-end gap-3">
      <div>
        <div className="font-semibold">{w.count}</div>
        <div className="flex items-center gap-1.5">
          <Button
            aria-label={w.shorter}
            onClick={() => onChange({ count_s: Math.max(0, count - COUNT_STEP_S) })}
          >
            −
          </Button>
          <output className="min-w-20 text-center">
            {made.count_s == null ? w.workOut : words.count(made.count_s)}
          </output>
          <Button
            aria-label={w.longer}
            onClick={() => onChange({ count_s: Math.min(180, count + COUNT_STEP_S) })}
          >
            +
          </Button>
          {made.count_s != null && (
            <Button look="quiet" onClick={() => onChange({ count_s: null })}>
              {w.workOut}
            </Button>
          )}
        </div>
      </div>
      <MetresBox
        label={w.leader}
        value={made.leader_m ?? null}
        placeholder={leaderM === null ? w.usual : boxText(depthTo(unit, leaderM), 1)}
        onChange={(m) => (m === null || (m >= 0.8 && m <= 9)) && onChange({ leader_m: m })}
      />
    </div>
  );
}

export default function HandEditor({ index, made, countS, leaderM }: Props) {
  const { say } = useReader();
  const { day, changeDay } = useReading("day", "changeDay");
  const kit = useKit();
  const done = useDone();
  const lines = kit.data?.lines ?? [];
  const flies = kit.data?.flies ?? [];
  const line = lines.find((l) => l.id === made.line);
  const afloat = made.style === "dangle" || made.style === "drifted";
  const change = (part: Partial<HandMade>) =>
    changeDay({ byHand: day.byHand.map((one, k) => (k === index ? { ...one, ...part } : one)) });
  const remove = () => {
    const before = day.byHand;
    changeDay({ byHand: before.filter((_, k) => k !== index) });
    done({ text: w.removed, undo: () => changeDay({ byHand: before }) });
  };
  const more = flies.find((f) => !f.surface && f.stock !== 0 && !made.flies.includes(f.id));
  return (
    <fieldset className="my-3 space-y-3 border-l-4 border-take pl-3">
      <legend className="sr-only">{w.title}</legend>
      <div className="flex flex-wrap items-end gap-3">
        <Field label={w.line} className="min-w-52 flex-1">
          {(p) => (
            <Select
              {...p}
              value={made.line}
              onChange={(e) =>
                change({
                  line: e.target.value,
                  count_s: null,
                  float_hang_m: null,
                  style: "team",
                  leader_m: null,
                  let_down_m: null,
                })
              }
            >
              {lines.map((l) => (
                <option key={l.id} value={l.id}>
                  {say(l.title)}
                </option>
              ))}
            </Select>
          )}
        </Field>
        {line?.family === "floating" && !afloat && (
          <Tick
            label={say(w.float)}
            checked={made.float_hang_m != null}
            onChange={(on) => change({ float_hang_m: on ? 2 : null, count_s: null })}
          />
        )}
      </div>
      {made.flies.map((key, at) => (
        <FlyRow key={`${at}${key}`} index={index} at={at} made={made} flies={flies} onChange={change} />
      ))}
      <div className="flex gap-2">
        {made.flies.length < 3 && more && (
          <Button
            onClick={() =>
              change({
                flies: [more.id, ...made.flies],
                hooks: [null, ...made.flies.map((_, k) => made.hooks[k] ?? null)],
              })
            }
          >
            {w.addFly}
          </Button>
        )}
        {made.flies.length > 1 && (
          <Button onClick={() => change({ flies: made.flies.slice(1), hooks: made.hooks.slice(1) })}>
            {w.dropFly}
          </Button>
        )}
      </div>
      <HowDeep
        key={`${made.line}${made.float_hang_m != null}`}
        made={made}
        countS={countS}
        leaderM={leaderM}
        onChange={change}
      />
      {made.float_hang_m == null && !afloat && (
        <Choice
          label={w.retrieve}
          required
          value={made.retrieve}
          options={PACES.filter((o) => o.value !== "drift").map((o) => ({
            value: o.value as HandMade["retrieve"],
            label: say(o.label),
          }))}
          onChange={(retrieve) => retrieve && change({ retrieve })}
        />
      )}
      <Button look="danger" onClick={remove}>
        {w.remove}
      </Button>
    </fieldset>
  );
}
