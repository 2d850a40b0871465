/** Change place, pace, fly or set-up; the effort so far stays with what was fished. */

import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { letter } from "../../lib/cord";
import { useKit } from "../../lib/kit";
import { PACES, type Pace, paceText } from "../../lib/paces";
import { useReader } from "../../lib/session";
import { depthText } from "../../lib/units";
import { useWaters } from "../../lib/waters";
import type { Outing, Spell } from "../../offline/overlay";
import { keptReady } from "../../offline/ready";
import { Button, Choice, Field, Select, Tick } from "../../ui/controls";
import { Sheet } from "../../ui/Sheet";
import { carriedTo, lastTakeM } from "./carry";
import { words } from "./strings";

/** What the value of a rig out of the kit begins with; the plan's own are numbers. */
const KIT = "kit ";

interface Props {
  onClose: () => void;
  outing: Outing;
  spell: Spell;
  onChange: (part: Partial<Schemas["SpellBody"]>) => void;
}

export default function ChangeSheet(props: Props) {
  return (
    <Sheet onClose={props.onClose} title={words.changeTitle} about={words.changeAbout}>
      <ChangeForm {...props} />
    </Sheet>
  );
}

interface NextProps {
  setUp: Schemas["SetUpOut"] | undefined;
  spell: Spell;
  onTake: (part: Partial<Schemas["SpellBody"]>) => void;
}

/** What the plan says to change next, one tap each: the pace first, then the point fly. */
function Next({ setUp, spell, onTake }: NextProps) {
  const { say } = useReader();
  const paces = (setUp?.changes?.next_paces ?? []).filter((one) => one !== spell.pace);
  const on = spell.flies ?? [];
  const flies = (setUp?.changes?.next_flies ?? []).filter((one) => !on.includes(one.name));
  if (paces.length + flies.length === 0) return null;
  return (
    <section aria-label={words.next}>
      <h3 className="font-semibold">{words.next}</h3>
      <div className="mt-1 flex flex-col gap-1.5">
        {paces.map((pace) => (
          <Button key={pace} className="min-h-12 text-left" onClick={() => onTake({ pace })}>
            {say(words.nextPace(paceText(pace)))}
          </Button>
        ))}
        {flies.map((fly) => (
          <Button
            key={fly.name}
            className="min-h-12 text-left"
            onClick={() => onTake({ flies: [...on.slice(0, -1), fly.name] })}
          >
            {say(words.nextFly(fly.name, fly.why))}
          </Button>
        ))}
      </div>
    </section>
  );
}

function ChangeForm({ onClose, outing, spell, onChange }: Props) {
  const { say, settings } = useReader();
  const outOfKit = useQuery({
    queryKey: ["kit-ways", outing.water_id],
    queryFn: async () => (await keptReady(outing.water_id))?.kit ?? null,
    networkMode: "always",
  }).data;
  const kit = useKit();
  const waters = useWaters();
  const places = waters.data?.find((w) => w.id === outing.water_id)?.places ?? [];
  const [setUp, setSetUp] = useState(String(spell.set_up_index ?? ""));
  const [pace, setPace] = useState<Pace>(spell.pace ?? "static");
  const [place, setPlace] = useState(spell.place ?? "");
  const [flies, setFlies] = useState(spell.flies ?? []);
  const sets = outing.plan?.set_ups ?? [];
  const found = lastTakeM(outing);
  const [carry, setCarry] = useState(false);
  const fromKit = setUp.startsWith(KIT) ? outOfKit?.starts[Number(setUp.slice(KIT.length))] : undefined;
  const next = sets[Number(setUp)];
  const carried =
    found !== null && next && setUp !== String(spell.set_up_index ?? "") ? carriedTo(next, found) : null;
  const changed = [
    setUp !== String(spell.set_up_index ?? ""),
    pace !== (spell.pace ?? "static"),
    place !== (spell.place ?? ""),
    flies.join() !== (spell.flies ?? []).join(),
  ].filter(Boolean).length;
  const apply = () => {
    const other = sets[Number(setUp)];
    const swapped = fromKit ?? (other && setUp !== String(spell.set_up_index ?? ""));
    const base = fromKit ?? (swapped ? { ...outing.starts[Number(setUp)], ...(carry ? carried : null) } : {});
    const own = swapped && pace === (spell.pace ?? "static") ? {} : { pace };
    onChange({ ...base, ...own, place, ...(swapped ? {} : { flies }) });
    onClose();
  };
  const take = (part: Partial<Schemas["SpellBody"]>) => {
    onChange(part);
    onClose();
  };
  return (
    <div className="space-y-4">
      <Next setUp={sets[spell.set_up_index ?? -1]} spell={spell} onTake={take} />
      {(sets.length > 1 || outOfKit) && (
        <Field label={words.setUp}>
          {(p) => (
            <Select {...p} value={setUp} onChange={(e) => setSetUp(e.target.value)}>
              {sets.map((s, i) => (
                <option key={s.key || s.method} value={i}>
                  {letter(i)} · {say(s.title)}
                </option>
              ))}
              {spell.set_up_index == null && <option value="">{say(spell.title)}</option>}
              {outOfKit && (
                <optgroup label={words.outOfKit}>
                  {outOfKit.starts.map((one, i) => (
                    <option key={one.title} value={`${KIT}${i}`}>
                      {say(one.title)}
                    </option>
                  ))}
                </optgroup>
              )}
            </Select>
          )}
        </Field>
      )}
      {carried && found !== null && (
        <Tick
          label={words.carry(depthText(settings.depth_unit, found))}
          note={carried.count_s == null ? undefined : words.carryCount(carried.count_s)}
          checked={carry}
          onChange={setCarry}
        />
      )}
      <Choice
        label={words.pace}
        required
        value={pace}
        options={PACES.map((o) => ({ value: o.value, label: say(o.label) }))}
        onChange={(next) => next && setPace(next)}
      />
      <Field label={words.place}>
        {(p) => (
          <Select {...p} value={place} onChange={(e) => setPlace(e.target.value)}>
            {[...new Set([place, ...places.map((one) => one.name)])].map((name) => (
              <option key={name} value={name}>
                {name}
              </option>
            ))}
          </Select>
        )}
      </Field>
      {setUp === String(spell.set_up_index ?? "") &&
        flies.map((fly, i) => (
          <Field key={i} label={words.fly(i === flies.length - 1 ? "point" : `dropper ${i + 1}`)}>
            {(p) => (
              <Select
                {...p}
                value={fly}
                onChange={(e) => setFlies(flies.map((f, k) => (k === i ? e.target.value : f)))}
              >
                {[...new Set([fly, ...(kit.data?.flies ?? []).map((one) => one.name)])].map((name) => (
                  <option key={name} value={name}>
                    {say(name)}
                  </option>
                ))}
              </Select>
            )}
          </Field>
        ))}
      {changed > 1 && (
        <p role="status" className="border-l-4 border-warm pl-2 text-warm">
          {words.twoAtOnce}
        </p>
      )}
      <div className="flex gap-2">
        <Button look="main" onClick={apply} disabled={changed === 0}>
          {words.apply}
        </Button>
        <Button onClick={onClose}>{words.keep}</Button>
      </div>
    </div>
  );
}
