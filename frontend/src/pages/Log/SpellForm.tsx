/** A stretch mended or added: when, where, how, with what; split in two, or joined with the one after it. */
import { useState } from "react";
import type { Schemas } from "../../api/client";
import {
  EventBody_fly_longest,
  SpellBody_flies_many,
  SpellBody_title_longest,
} from "../../api/generated/limits";
import { useKit } from "../../lib/kit";
import { METHODS, methodText } from "../../lib/methods";
import { PACES, type Pace } from "../../lib/paces";
import { useReader } from "../../lib/session";
import { useWaters } from "../../lib/waters";
import { type Outing, type Spell, spellBody } from "../../offline/overlay";
import { Button, Field, Select, TextBox } from "../../ui/controls";
import { fault, MeasureField, useDepthBox } from "../../ui/measures";
import { Foot, type FormProps, Times, useTimeBox } from "./boxes";
import { words } from "./strings";

type Body = Schemas["SpellBody"];
const MOST_FLIES = 10;

interface Props extends FormProps<Body> {
  outing: Outing;
  spell: Spell;
  made: boolean;
  onSplit: (at: string) => void;
  onJoin: (next: Spell) => void;
}

/** The stretch after another, if there is one. */
function nextOf(outing: Outing, spell: Spell): Spell | undefined {
  return outing.spells
    .filter((one) => one.id !== spell.id && one.started_at >= spell.started_at)
    .sort((a, b) => a.started_at.localeCompare(b.started_at))[0];
}

function SplitAndJoin({ outing, spell, zone, onSplit, onJoin }: Omit<Props, "made" | "onSave" | "onClose">) {
  const [start, end] = [spell.started_at, spell.ended_at ?? outing.ended_at].map((at) =>
    at ? new Date(at).getTime() : null,
  );
  const middle = start != null && end != null ? new Date((start + end) / 2).toISOString() : spell.started_at;
  const at = useTimeBox(middle, zone, "split");
  const when = at.iso === null ? Number.NaN : new Date(at.iso).getTime();
  const inside = start != null && when > start && (end === null || (end !== undefined && when < end));
  const next = nextOf(outing, spell);
  return (
    <details>
      <summary className="min-h-11 cursor-pointer font-semibold">{words.splitOrJoin}</summary>
      <div className="space-y-3 border-l-4 border-rule pl-3">
        <div className="flex flex-wrap items-end gap-2">
          <Field
            label={words.splitAt}
            problem={
              at.problem ?? (inside ? undefined : fault("split", words.splitOutside, words.splitInside))
            }
          >
            {(p) => (
              <TextBox
                {...p}
                type="datetime-local"
                value={at.text}
                onChange={(e) => at.setText(e.target.value)}
              />
            )}
          </Field>
          <Button disabled={!inside} onClick={() => at.iso && onSplit(at.iso)}>
            {words.split}
          </Button>
        </div>
        {next && <Button onClick={() => onJoin(next)}>{words.join(next.title)}</Button>}
      </div>
    </details>
  );
}

export function SpellForm(props: Props) {
  const { outing, spell, made, zone, onSave, onClose } = props;
  const { say } = useReader();
  const places = useWaters().data?.find((water) => water.id === outing.water_id)?.places ?? [];
  const box = useKit().data?.flies ?? [];
  const from = useTimeBox(spell.started_at, zone, "started_at");
  const to = useTimeBox(spell.ended_at, zone, "ended_at", true);
  const depth = useDepthBox(spell.depth_m);
  const [place, setPlace] = useState(spell.place ?? "");
  const [method, setMethod] = useState<Body["method"]>(spell.method);
  const [title, setTitle] = useState(spell.title);
  const [pace, setPace] = useState<Pace>(spell.pace ?? "static");
  const [flies, setFlies] = useState((spell.flies ?? []).join(", "));
  const order = to.iso !== null && from.iso !== null && new Date(to.iso) < new Date(from.iso);
  const names = flies
    .split(",")
    .map((name) => name.trim())
    .filter(Boolean);
  const many = names.length > MOST_FLIES;
  const save = () => {
    const shift = depth.value !== null && spell.depth_m != null ? depth.value - spell.depth_m : 0;
    const moved = (edge: number | null | undefined) =>
      depth.value === null || edge == null ? null : Math.max(0, edge + shift);
    // What a set-up of the plan was is another thing once it is fished otherwise.
    const same = method === spell.method && pace === (spell.pace ?? "static");
    onSave({
      ...spellBody(spell),
      started_at: from.iso ?? spell.started_at,
      ended_at: to.iso,
      place,
      method,
      title: title.trim() || methodText(method),
      pace,
      flies: names,
      set_up_index: same ? (spell.set_up_index ?? null) : null,
      depth_m: depth.value,
      low_m: moved(spell.low_m),
      high_m: moved(spell.high_m),
    });
  };
  return (
    <div className="space-y-4">
      <Times
        from={from}
        to={to}
        problem={order ? fault("ended_at", words.order, "a later time") : undefined}
      />
      <div className="grid grid-cols-1 gap-3 min-[26rem]:grid-cols-2">
        <Field label={words.place}>
          {(p) => (
            <Select {...p} value={place} onChange={(e) => setPlace(e.target.value)}>
              {[...new Set(["", place, ...places.map((one) => one.name)])].map((name) => (
                <option key={name} value={name}>
                  {name || "?"}
                </option>
              ))}
            </Select>
          )}
        </Field>
        <MeasureField label={words.pointDepth} box={depth} />
        <Field label={words.way}>
          {(p) => (
            <Select
              {...p}
              value={method}
              onChange={(e) => {
                const next = e.target.value as Body["method"];
                if (title === methodText(method) || title === "") setTitle(methodText(next));
                setMethod(next);
              }}
            >
              {[...METHODS.map((one) => one.value), "other" as const].map((one) => (
                <option key={one} value={one}>
                  {say(methodText(one))}
                </option>
              ))}
            </Select>
          )}
        </Field>
        <Field label={words.pace}>
          {(p) => (
            <Select {...p} value={pace} onChange={(e) => setPace(e.target.value as Pace)}>
              {PACES.map((one) => (
                <option key={one.value} value={one.value}>
                  {say(one.label)}
                </option>
              ))}
            </Select>
          )}
        </Field>
      </div>
      <Field label={words.inWords}>
        {(p) => (
          <TextBox
            {...p}
            maxLength={SpellBody_title_longest}
            value={title}
            onChange={(e) => setTitle(e.target.value)}
          />
        )}
      </Field>
      <Field
        label={words.flies}
        hint={words.fliesHint}
        problem={many ? fault("flies", words.tooManyFlies, `${MOST_FLIES}`) : undefined}
      >
        {(p) => (
          <>
            <TextBox
              {...p}
              list="box-flies"
              maxLength={SpellBody_flies_many * EventBody_fly_longest}
              value={flies}
              onChange={(e) => setFlies(e.target.value)}
            />
            <datalist id="box-flies">
              {box.map((fly) => (
                <option key={fly.id} value={[...names.slice(0, -1), fly.name].join(", ")} />
              ))}
            </datalist>
          </>
        )}
      </Field>
      {!made && <SplitAndJoin {...props} />}
      <Foot bad={order || from.bad || to.bad || depth.bad || many} onClose={onClose} onSave={save} />
    </div>
  );
}
