/** What a change on the water takes, in minutes: the search weighs a step by it. */
import { useState } from "react";
import type { Problem } from "../../api/client";
import { type Settings, useReader } from "../../lib/session";
import { typedNumber } from "../../lib/units";
import { Field, NumberBox } from "../../ui/controls";
import { words } from "./strings";

type CostsOf = NonNullable<Settings["costs"]>;
const PARTS = ["count", "float_depth", "fly", "rod", "rig", "place"] as const;
type Part = (typeof PARTS)[number];

interface BoxProps {
  part: Part;
  minutes: number;
  problem?: Problem;
  onChange: (minutes: number) => void;
}

function CostBox({ part, minutes, problem, onChange }: BoxProps) {
  const { say } = useReader();
  const [text, setText] = useState(String(minutes));
  const typed = typedNumber(text);
  const own =
    typed === null || Number.isNaN(typed)
      ? { code: "not_a_number", path: part, message: words.noMinutes, accepted: words.someMinutes, hint: "" }
      : problem;
  return (
    <Field label={say(words.costs[part])} problem={own} className="w-44">
      {(p) => (
        <NumberBox
          {...p}
          unit="min"
          value={text}
          onChange={(e) => {
            setText(e.target.value);
            const next = typedNumber(e.target.value);
            if (next !== null && !Number.isNaN(next)) onChange(next);
          }}
        />
      )}
    </Field>
  );
}

interface Props {
  value: CostsOf;
  onChange: (value: CostsOf) => void;
  problemAt: (path: string) => Problem | undefined;
}

export function Costs({ value, onChange, problemAt }: Props) {
  return (
    <details className="mb-3">
      <summary className="min-h-11 cursor-pointer py-2 font-semibold">{words.costsTitle}</summary>
      <p className="mb-2 text-soft">{words.costsAbout}</p>
      <div className="flex flex-wrap gap-3">
        {PARTS.map((part) => (
          <CostBox
            key={part}
            part={part}
            minutes={value[part] ?? 0}
            problem={problemAt(`costs.${part}`)}
            onChange={(minutes) => onChange({ ...value, [part]: minutes })}
          />
        ))}
      </div>
    </details>
  );
}
