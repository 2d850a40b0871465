/** The boxes that mending the log is made of: times on the water's clock, a depth, save and cancel. */
import { useState } from "react";
import type { Problem } from "../../api/client";
import { useReader } from "../../lib/session";
import { boxTime, fromBoxTime, notADay } from "../../lib/time";
import { boxText, depthFrom, depthTo, typedNumber } from "../../lib/units";
import { Button, Field, TextBox } from "../../ui/controls";
import { words } from "./strings";

export function fault(path: string, message: string, accepted: string): Problem {
  return { code: "form", path, message, accepted, hint: "" };
}

/** A depth box in the angler's unit: its text, and what it means in metres. */
export function useDepthBox(start: number | null | undefined) {
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

const POUND_KG = 0.45359237;
const HEAVIEST_KG = 30;

/** A weight as the angler reads it. */
export function weightText(unit: "m" | "ft", kg: number): string {
  return unit === "m" ? `${kg.toFixed(2)} kg` : `${(kg / POUND_KG).toFixed(1)} lb`;
}

/** A weight box in kilos or pounds: its text, and what it means in kilos. */
export function useWeightBox(start: number | null | undefined) {
  const { settings } = useReader();
  const metric = settings.depth_unit === "m";
  const unit = metric ? "kg" : "lb";
  const perKg = metric ? 1 : 1 / POUND_KG;
  const [text, setText] = useState(start == null ? "" : boxText(start * perKg, 2));
  const value = typedNumber(text);
  const bad = value !== null && (Number.isNaN(value) || value <= 0 || value / perKg > HEAVIEST_KG);
  const problem = bad
    ? fault("weight", words.notANumber, `0 to ${(HEAVIEST_KG * perKg).toFixed(0)} ${unit}`)
    : undefined;
  return { unit, text, setText, problem, kg: value === null || bad ? null : value / perKg, bad };
}

/** A date-and-time box on the water's clock: its text as it is typed, and the instant it means; empty where that may be. */
export function useTimeBox(start: string | null | undefined, zone: string, path: string, mayBeEmpty = false) {
  const [text, setText] = useState(start ? boxTime(new Date(start), zone) : "");
  const at = fromBoxTime(text, zone);
  const bad = at === null && !(mayBeEmpty && text === "");
  // Untouched, it stays to the second what it was.
  const same = start && text === boxTime(new Date(start), zone);
  const iso = same ? start : (at?.toISOString() ?? null);
  return { text, setText, iso, bad, problem: bad ? notADay(path) : undefined };
}

type TimeBox = ReturnType<typeof useTimeBox>;

export function Times({ from, to, problem }: { from: TimeBox; to: TimeBox; problem?: Problem }) {
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

export interface FormProps<T> {
  zone: string;
  onSave: (body: T) => void;
  onClose: () => void;
}

export function Foot({ onSave, onClose, bad }: { onSave: () => void; onClose: () => void; bad: boolean }) {
  return (
    <div className="flex gap-2">
      <Button look="main" disabled={bad} onClick={onSave}>
        {words.save}
      </Button>
      <Button onClick={onClose}>{words.cancel}</Button>
    </div>
  );
}
