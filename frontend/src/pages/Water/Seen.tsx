/** Rises, signs and food seen: one button each, tapped up through few, some, many; how prey was met beside it. */
import { lazy, Suspense } from "react";
import type { Abundance, Evidence } from "../../lib/draft";
import { useBoxes } from "../../lib/reading";
import { useReader } from "../../lib/session";
import { Select } from "../../ui/controls";
import { words } from "./strings";

const Samples = lazy(() => import("./Samples").then((m) => ({ default: m.Samples })));

const NEXT: Record<string, Abundance | undefined> = { "": "few", few: "some", some: "many", many: undefined };

interface GroupProps {
  title: string;
  options: { value: string; label: string }[];
  seen: Record<string, Abundance>;
  onChange: (seen: Record<string, Abundance>) => void;
}

function Group({ title, options, seen, onChange }: GroupProps) {
  const { say } = useReader();
  return (
    <fieldset>
      <legend className="font-semibold">{title}</legend>
      <div className="mt-0.5 flex flex-wrap gap-1.5">
        {options.map((option) => {
          const amount = seen[option.value];
          return (
            <button
              key={option.value}
              type="button"
              aria-pressed={amount !== undefined}
              onClick={() => {
                const { [option.value]: _old, ...rest } = seen;
                const next = NEXT[amount ?? ""];
                onChange(next ? { ...rest, [option.value]: next } : rest);
              }}
              className="min-h-11 rounded-md border-2 border-edge bg-raised px-3 aria-pressed:border-weed aria-pressed:font-bold"
            >
              {say(option.label)}
              {amount && <span className="text-weed"> · {words.amounts[amount]}</span>}
            </button>
          );
        })}
      </div>
    </fieldset>
  );
}

/** How each prey was met: seen alive, hatching, in the weed, or coughed up by a fish. */
function HowMet() {
  const { draft, change } = useBoxes("seen", "met");
  const { say } = useReader();
  const seen = Object.keys(draft.seen);
  if (seen.length === 0) return null;
  const label = (key: string) => words.prey.find((p) => p.value === key)?.label ?? key;
  return (
    <div className="flex flex-wrap gap-x-4 gap-y-1">
      {seen.map((key) => (
        <span key={key} className="flex items-center gap-1.5">
          <label htmlFor={`met-${key}`}>{say(label(key))}</label>
          <Select
            id={`met-${key}`}
            className="!w-auto"
            value={draft.met[key] ?? "seen"}
            onChange={(e) => change({ met: { ...draft.met, [key]: e.target.value as Evidence } })}
          >
            {(Object.keys(words.met) as Evidence[]).map((way) => (
              <option key={way} value={way}>
                {words.met[way]}
              </option>
            ))}
          </Select>
        </span>
      ))}
    </div>
  );
}

export default function Seen() {
  const { draft, change } = useBoxes("rises", "signs", "seen");
  return (
    <section aria-labelledby="seen" className="space-y-2">
      <h2 id="seen">{words.seen}</h2>
      <p className="text-[0.92rem] text-soft">{words.seenAbout}</p>
      <Group
        title={words.risesTitle}
        options={words.rises}
        seen={draft.rises}
        onChange={(rises) => change({ rises })}
      />
      <Group
        title={words.signsTitle}
        options={words.signs}
        seen={draft.signs}
        onChange={(signs) => change({ signs })}
      />
      <Group
        title={words.foodTitle}
        options={words.prey}
        seen={draft.seen}
        onChange={(seen) => change({ seen })}
      />
      <HowMet />
      <Suspense>
        <Samples />
      </Suspense>
    </section>
  );
}
