/** Rises and food seen: one button each, tapped up through few, some, many. */
import type { Abundance } from "../../lib/draft";
import { useReading } from "../../lib/reading";
import { useReader } from "../../lib/session";
import { words } from "./strings";

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

export function Seen() {
  const { draft, change } = useReading();
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
        title={words.foodTitle}
        options={words.prey}
        seen={draft.seen}
        onChange={(seen) => change({ seen })}
      />
    </section>
  );
}
