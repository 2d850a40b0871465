/** Mending the log: an outing, a stretch, an event. */
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useReader } from "../../lib/session";
import { boxText, typedNumber } from "../../lib/units";
import { type Event, eventBody, type Outing, outingBody, type Spell } from "../../offline/overlay";
import { BOX, Field, NumberBox, Select, TextBox } from "../../ui/controls";
import { Sheet } from "../../ui/Sheet";
import { Foot, type FormProps, fault, Times, useDepthBox, useTimeBox, useWeightBox } from "./boxes";
import { SpellForm } from "./SpellForm";
import { words } from "./strings";

export type Editing =
  | { kind: "outing" }
  | { kind: "spell"; spell: Spell; made?: boolean }
  | { kind: "event"; event: Event; spell: Spell; made?: boolean };

export interface Mend {
  outing: (body: Schemas["OutingBody"] | null) => void;
  spell: (spell: Spell, body: Schemas["SpellBody"] | null, made?: boolean) => void;
  /** One stretch becomes two at an instant; what came after it belongs to the later one. */
  split: (spell: Spell, at: string) => void;
  /** A stretch and the one after it become one. */
  join: (spell: Spell, next: Spell) => void;
  event: (event: Event, body: Schemas["EventBody"] | null, made?: boolean) => void;
}

function OutingForm({
  outing,
  zone,
  onSave,
  onClose,
}: FormProps<Schemas["OutingBody"]> & { outing: Outing }) {
  const from = useTimeBox(outing.started_at, zone, "started_at");
  const to = useTimeBox(outing.ended_at, zone, "ended_at", true);
  const [note, setNote] = useState(outing.note ?? "");
  const order = to.iso !== null && from.iso !== null && new Date(to.iso) < new Date(from.iso);
  const bad = order || from.bad || to.bad;
  return (
    <div className="space-y-4">
      <Times
        from={from}
        to={to}
        problem={order ? fault("ended_at", words.order, "a later time") : undefined}
      />
      <Field label={words.note} hint={words.noteHint}>
        {(p) => (
          <textarea
            {...p}
            rows={4}
            maxLength={4000}
            className={BOX}
            value={note}
            onChange={(e) => setNote(e.target.value)}
          />
        )}
      </Field>
      <Foot
        bad={bad}
        onClose={onClose}
        onSave={() =>
          onSave({ ...outingBody(outing), started_at: from.iso ?? outing.started_at, ended_at: to.iso, note })
        }
      />
    </div>
  );
}

function EventForm({
  event,
  spell,
  zone,
  onSave,
  onClose,
}: FormProps<Schemas["EventBody"]> & { event: Event; spell: Spell }) {
  const { say, settings } = useReader();
  const metric = settings.depth_unit === "m";
  const [kind, setKind] = useState(event.kind);
  const at = useTimeBox(event.occurred_at, zone, "occurred_at");
  const depth = useDepthBox(event.depth_m);
  const [fly, setFly] = useState(event.fly ?? "");
  const perUnit = metric ? 100 : 1 / 0.0254;
  const [length, setLength] = useState(event.length_m == null ? "" : boxText(event.length_m * perUnit, 1));
  const long = typedNumber(length);
  const badLength = long !== null && (Number.isNaN(long) || long <= 0 || long / perUnit > 1.5);
  const kilos = useWeightBox(event.weight_kg);
  const save = () =>
    onSave({
      ...eventBody(event),
      weight_kg: kind === "landed" ? kilos.kg : null,
      kind,
      occurred_at: at.iso ?? event.occurred_at,
      depth_m: depth.metres,
      fly,
      length_m: long === null ? null : long / perUnit,
    });
  return (
    <div className="space-y-4">
      <Field label={words.kind}>
        {(p) => (
          <Select {...p} value={kind} onChange={(e) => setKind(e.target.value as Event["kind"])}>
            {words.kinds.map((k) => (
              <option key={k.value} value={k.value}>
                {say(k.label)}
              </option>
            ))}
          </Select>
        )}
      </Field>
      <Field label={words.at} problem={at.problem}>
        {(p) => (
          <TextBox
            {...p}
            type="datetime-local"
            value={at.text}
            onChange={(e) => at.setText(e.target.value)}
          />
        )}
      </Field>
      <Field label={words.flyDepth} problem={depth.problem} className="w-40">
        {(p) => (
          <NumberBox
            {...p}
            unit={depth.unit}
            value={depth.text}
            onChange={(e) => depth.setText(e.target.value)}
          />
        )}
      </Field>
      <Field label={words.fly}>
        {(p) => (
          <Select {...p} value={fly} onChange={(e) => setFly(e.target.value)}>
            {[...new Set(["", fly, ...(spell.flies ?? [])])].map((name) => (
              <option key={name} value={name}>
                {name === "" ? "?" : say(name)}
              </option>
            ))}
          </Select>
        )}
      </Field>
      {kind === "landed" && (
        <Field
          label={words.length}
          className="w-40"
          problem={
            badLength ? fault("length", words.notANumber, metric ? "1 to 150 cm" : "1 to 59 in") : undefined
          }
        >
          {(p) => (
            <NumberBox
              {...p}
              unit={metric ? "cm" : "in"}
              value={length}
              onChange={(e) => setLength(e.target.value)}
            />
          )}
        </Field>
      )}
      {kind === "landed" && (
        <Field label={words.weight} hint={words.weightHint} className="w-40" problem={kilos.problem}>
          {(p) => (
            <NumberBox
              {...p}
              unit={kilos.unit}
              value={kilos.text}
              onChange={(e) => kilos.setText(e.target.value)}
            />
          )}
        </Field>
      )}
      <Foot bad={depth.bad || badLength || at.bad || kilos.bad} onClose={onClose} onSave={save} />
    </div>
  );
}

interface Props {
  editing: Editing;
  outing: Outing;
  zone: string;
  mend: Mend;
  onClose: () => void;
}

export default function EditSheet({ editing, outing, zone, mend, onClose }: Props) {
  const then =
    <T,>(save: (body: T) => void) =>
    (body: T) => {
      save(body);
      onClose();
    };
  return (
    <Sheet onClose={onClose} title={editing.kind !== "outing" && editing.made ? words.addTitle : words.edit}>
      {editing.kind === "outing" && (
        <OutingForm outing={outing} zone={zone} onClose={onClose} onSave={then(mend.outing)} />
      )}
      {editing.kind === "spell" && (
        <SpellForm
          outing={outing}
          spell={editing.spell}
          made={editing.made ?? false}
          zone={zone}
          onClose={onClose}
          onSave={then((b: Schemas["SpellBody"]) => mend.spell(editing.spell, b, editing.made))}
          onSplit={then((at: string) => mend.split(editing.spell, at))}
          onJoin={then((next: Spell) => mend.join(editing.spell, next))}
        />
      )}
      {editing.kind === "event" && (
        <EventForm
          event={editing.event}
          spell={editing.spell}
          zone={zone}
          onClose={onClose}
          onSave={then((b: Schemas["EventBody"]) => mend.event(editing.event, b, editing.made))}
        />
      )}
    </Sheet>
  );
}
