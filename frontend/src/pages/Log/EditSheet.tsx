/** Mending the log: an outing, a stretch, an event. */
import { useState } from "react";
import type { Problem, Schemas } from "../../api/client";
import { useReader } from "../../lib/session";
import { boxTime, fromBoxTime, notADay } from "../../lib/time";
import { boxText, depthFrom, depthTo, typedNumber } from "../../lib/units";
import { type Event, eventBody, type Outing, outingBody, type Spell, spellBody } from "../../offline/overlay";
import { BOX, Button, Field, NumberBox, Select, TextBox } from "../../ui/controls";
import { Sheet } from "../../ui/Sheet";
import { words } from "./strings";

export type Editing =
  | { kind: "outing" }
  | { kind: "spell"; spell: Spell }
  | { kind: "event"; event: Event; spell: Spell; made?: boolean };

export interface Mend {
  outing: (body: Schemas["OutingBody"] | null) => void;
  spell: (spell: Spell, body: Schemas["SpellBody"] | null) => void;
  event: (event: Event, body: Schemas["EventBody"] | null, made?: boolean) => void;
}

function fault(path: string, message: string, accepted: string): Problem {
  return { code: "form", path, message, accepted, hint: "" };
}

/** A depth box in the angler's unit: its text, and what it means in metres. */
function useDepthBox(start: number | null | undefined) {
  const { settings } = useReader();
  const unit = settings.depth_unit;
  const [text, setText] = useState(
    start === null || start === undefined ? "" : boxText(depthTo(unit, start), 1),
  );
  const value = typedNumber(text);
  const bad = value !== null && (Number.isNaN(value) || value < 0 || depthFrom(unit, value) > 300);
  const problem = bad
    ? fault("depth", words.notANumber, `0 to ${depthTo(unit, 300).toFixed(0)} ${unit}`)
    : undefined;
  return { unit, text, setText, problem, metres: value === null ? null : depthFrom(unit, value), bad };
}

/** A date-and-time box on the water's clock: its text as it is typed, and the instant it means; empty where that may be. */
function useTimeBox(start: string | null | undefined, zone: string, path: string, mayBeEmpty = false) {
  const [text, setText] = useState(start ? boxTime(new Date(start), zone) : "");
  const at = fromBoxTime(text, zone);
  const bad = at === null && !(mayBeEmpty && text === "");
  // Untouched, it stays to the second what it was.
  const same = start && text === boxTime(new Date(start), zone);
  const iso = same ? start : (at?.toISOString() ?? null);
  return { text, setText, iso, bad, problem: bad ? notADay(path) : undefined };
}

type TimeBox = ReturnType<typeof useTimeBox>;

function Times({ from, to, problem }: { from: TimeBox; to: TimeBox; problem?: Problem }) {
  return (
    <div className="grid grid-cols-1 gap-3 min-[26rem]:grid-cols-2">
      <Field label={words.started} problem={from.problem}>
        {(p) => (
          <TextBox
            {...p}
            type="datetime-local"
            value={from.text}
            onChange={(e) => from.setText(e.target.value)}
          />
        )}
      </Field>
      <Field label={words.ended} problem={to.problem ?? problem}>
        {(p) => (
          <TextBox
            {...p}
            type="datetime-local"
            value={to.text}
            onChange={(e) => to.setText(e.target.value)}
          />
        )}
      </Field>
    </div>
  );
}

interface FormProps<T> {
  zone: string;
  onSave: (body: T) => void;
  onClose: () => void;
}

function Foot({ onSave, onClose, bad }: { onSave: () => void; onClose: () => void; bad: boolean }) {
  return (
    <div className="flex gap-2">
      <Button look="main" disabled={bad} onClick={onSave}>
        {words.save}
      </Button>
      <Button onClick={onClose}>{words.cancel}</Button>
    </div>
  );
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

function SpellForm({ spell, zone, onSave, onClose }: FormProps<Schemas["SpellBody"]> & { spell: Spell }) {
  const from = useTimeBox(spell.started_at, zone, "started_at");
  const to = useTimeBox(spell.ended_at, zone, "ended_at", true);
  const depth = useDepthBox(spell.depth_m);
  const order = to.iso !== null && from.iso !== null && new Date(to.iso) < new Date(from.iso);
  const bad = order || from.bad || to.bad;
  const save = () => {
    const shift = depth.metres !== null && spell.depth_m != null ? depth.metres - spell.depth_m : 0;
    const moved = (edge: number | null | undefined) =>
      depth.metres === null || edge == null ? null : Math.max(0, edge + shift);
    onSave({
      ...spellBody(spell),
      started_at: from.iso ?? spell.started_at,
      ended_at: to.iso,
      depth_m: depth.metres,
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
      <Field label={words.pointDepth} problem={depth.problem} className="w-40">
        {(p) => (
          <NumberBox
            {...p}
            unit={depth.unit}
            value={depth.text}
            onChange={(e) => depth.setText(e.target.value)}
          />
        )}
      </Field>
      <Foot bad={bad || depth.bad} onClose={onClose} onSave={save} />
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
  const save = () =>
    onSave({
      ...eventBody(event),
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
      <Foot bad={depth.bad || badLength || at.bad} onClose={onClose} onSave={save} />
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
    <Sheet onClose={onClose} title={editing.kind === "event" && editing.made ? words.addTitle : words.edit}>
      {editing.kind === "outing" && (
        <OutingForm outing={outing} zone={zone} onClose={onClose} onSave={then(mend.outing)} />
      )}
      {editing.kind === "spell" && (
        <SpellForm
          spell={editing.spell}
          zone={zone}
          onClose={onClose}
          onSave={then((b: Schemas["SpellBody"]) => mend.spell(editing.spell, b))}
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
