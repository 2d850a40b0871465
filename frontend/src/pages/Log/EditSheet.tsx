/** Mending the log: an outing, a stretch, an event. */
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { OutingBody_note_longest } from "../../api/generated/limits";
import { useReader } from "../../lib/session";
import { type Event, eventBody, type Outing, outingBody, type Spell } from "../../offline/overlay";
import { BOX, Field, Select, TextBox } from "../../ui/controls";
import { fault, MeasureField, useDepthBox, useLengthBox, useWeightBox } from "../../ui/measures";
import { Sheet } from "../../ui/Sheet";
import { Foot, type FormProps, Times, useTimeBox } from "./boxes";
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
            maxLength={OutingBody_note_longest}
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
  const { say } = useReader();
  const [kind, setKind] = useState(event.kind);
  const at = useTimeBox(event.occurred_at, zone, "occurred_at");
  const depth = useDepthBox(event.depth_m);
  const [fly, setFly] = useState(event.fly ?? "");
  const long = useLengthBox(event.length_m);
  const kilos = useWeightBox(event.weight_kg);
  const save = () =>
    onSave({
      ...eventBody(event),
      weight_kg: kind === "landed" ? kilos.value : null,
      kind,
      occurred_at: at.iso ?? event.occurred_at,
      depth_m: depth.value,
      fly,
      length_m: long.value,
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
      <MeasureField label={words.flyDepth} box={depth} />
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
      {kind === "landed" && <MeasureField label={words.length} box={long} />}
      {kind === "landed" && <MeasureField label={words.weight} hint={words.weightHint} box={kilos} />}
      <Foot bad={depth.bad || long.bad || at.bad || kilos.bad} onClose={onClose} onSave={save} />
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
