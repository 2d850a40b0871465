/** Boxes for a depth, a fish's length and its weight, in the angler's units: their text, and what it means in SI. */
import { useState } from "react";
import type { Problem } from "../api/client";
import { useReader } from "../lib/session";
import { boxText, depthTo, FOOT_M, typedNumber } from "../lib/units";
import { Field, NumberBox } from "./controls";

const POUND_KG = 0.45359237;
const DEEPEST_M = 300;
const HEAVIEST_KG = 30;
const LONGEST_FISH_M = 1.5;
const NO_NUMBER = "This is no number.";

export function fault(path: string, message: string, accepted: string): Problem {
  return { code: "form", path, message, accepted, hint: "" };
}

interface Measure {
  path: string;
  unit: string;
  /** How many of the unit one of SI is. */
  per: number;
  /** The most there may be, in SI. */
  most: number;
  /** Whether nought is one. */
  nought?: boolean;
  digits: number;
}

/** What is typed in a box, what it means in SI (null where it is empty or no number), and what is wrong with it. */
export interface Box {
  unit: string;
  text: string;
  setText: (text: string) => void;
  value: number | null;
  bad: boolean;
  problem?: Problem;
}

function useBox({ path, unit, per, most, nought, digits }: Measure, start: number | null | undefined): Box {
  const [text, setText] = useState(start == null ? "" : boxText(start * per, digits));
  const typed = typedNumber(text);
  const bad =
    typed !== null && (Number.isNaN(typed) || typed < 0 || (!nought && typed === 0) || typed / per > most);
  return {
    unit,
    text,
    setText,
    bad,
    value: typed === null || bad ? null : typed / per,
    problem: bad ? fault(path, NO_NUMBER, `0 to ${(most * per).toFixed(0)} ${unit}`) : undefined,
  };
}

export function useDepthBox(start: number | null | undefined): Box {
  const unit = useReader().settings.depth_unit;
  const per = depthTo(unit, 1);
  return useBox({ path: "depth", unit, per, most: DEEPEST_M, nought: true, digits: 1 }, start);
}

export function useLengthBox(start: number | null | undefined): Box {
  const metric = useReader().settings.depth_unit === "m";
  const per = metric ? 100 : 12 / FOOT_M;
  const unit = metric ? "cm" : "in";
  return useBox({ path: "length", unit, per, most: LONGEST_FISH_M, digits: 1 }, start);
}

export function useWeightBox(start: number | null | undefined): Box {
  const metric = useReader().settings.depth_unit === "m";
  const per = metric ? 1 : 1 / POUND_KG;
  const unit = metric ? "kg" : "lb";
  return useBox({ path: "weight", unit, per, most: HEAVIEST_KG, digits: 2 }, start);
}

/** A weight as the angler reads it. */
export function weightText(unit: "m" | "ft", kg: number): string {
  return unit === "m" ? `${kg.toFixed(2)} kg` : `${(kg / POUND_KG).toFixed(1)} lb`;
}

export function MeasureField({ label, hint, box }: { label: string; hint?: string; box: Box }) {
  return (
    <Field label={label} hint={hint} problem={box.problem} className="w-40">
      {(p) => (
        <NumberBox {...p} unit={box.unit} value={box.text} onChange={(e) => box.setText(e.target.value)} />
      )}
    </Field>
  );
}
