/** A box for a quantity: typed in the angler's unit, kept in SI; what cannot be read stays in the box with its fault. */
import { useEffect, useRef, useState } from "react";
import type { Problem } from "../../api/client";
import { useReader } from "../../lib/session";
import { boxText, FOOT_M, temperatureFrom, temperatureTo, typedNumber } from "../../lib/units";
import { Field, NumberBox } from "../../ui/controls";

interface Unit {
  label: string;
  to: (si: number) => number;
  from: (shown: number) => number;
  digits: number;
}

const same = (v: number) => v;
const plain = (label: string, digits: number): Unit => ({ label, to: same, from: same, digits });

/** Units of the bench: lengths and speeds follow the angler's own, the rest is as the trade says it. */
export function useUnits() {
  const { settings } = useReader();
  const feet = settings.depth_unit === "ft";
  const length: Unit = feet
    ? { label: "ft", to: (m) => m / FOOT_M, from: (v) => v * FOOT_M, digits: 2 }
    : plain("m", 2);
  const pace: Unit = feet
    ? { label: "in/s", to: (v) => v / 0.0254, from: (v) => v * 0.0254, digits: 1 }
    : { label: "cm/s", to: (v) => v * 100, from: (v) => v / 100, digits: 1 };
  const short: Unit = feet
    ? { label: "in", to: (m) => m / 0.0254, from: (v) => v * 0.0254, digits: 1 }
    : { label: "cm", to: (m) => m * 100, from: (v) => v / 100, digits: 0 };
  return {
    length,
    pace,
    short,
    temperature: {
      label: `°${settings.temperature_unit.toUpperCase()}`,
      to: (c: number) => temperatureTo(settings.temperature_unit, c),
      from: (v: number) => temperatureFrom(settings.temperature_unit, v),
      digits: 0,
    } as Unit,
    rate: plain("in/s", 2),
    seconds: plain("s", 1),
    grams: plain("g", 3),
    mm: plain("mm", 2),
    share: { label: "%", to: (v: number) => v * 100, from: (v: number) => v / 100, digits: 0 } as Unit,
    count: plain("", 0),
    mm3: plain("mm³", 0),
    pounds: plain("lb", 1),
  };
}

interface Props {
  label: string;
  unit: Unit;
  value: number | null | undefined;
  onChange: (value: number) => void;
  onEmpty?: () => void;
  problem?: Problem;
  hint?: string;
  className?: string;
}

export function Amount({ label, unit, value, onChange, onEmpty, problem, hint, className = "w-28" }: Props) {
  const shown = value === null || value === undefined ? "" : boxText(unit.to(value), unit.digits);
  const [text, setText] = useState(shown);
  const told = useRef(shown);
  useEffect(() => {
    // A value from elsewhere (a loaded rig, a calibration) replaces the text; the angler's own typing stays as it is.
    if (shown !== told.current) {
      told.current = shown;
      setText(shown);
    }
  }, [shown]);
  const typed = typedNumber(text);
  const empty = typed === null;
  const bad = Number.isNaN(typed) || (empty && !onEmpty);
  const own: Problem = {
    code: "not_a_number",
    path: "",
    message: "This is no number.",
    accepted: "a number",
    hint: "",
  };
  const type = (next: string) => {
    setText(next);
    const number = typedNumber(next);
    if (number === null) {
      told.current = "";
      onEmpty?.();
    } else if (!Number.isNaN(number)) {
      const si = unit.from(number);
      told.current = boxText(unit.to(si), unit.digits);
      onChange(si);
    }
  };
  return (
    <Field label={label} hint={hint} problem={bad ? own : problem} className={className}>
      {(p) => <NumberBox {...p} unit={unit.label} value={text} onChange={(e) => type(e.target.value)} />}
    </Field>
  );
}
