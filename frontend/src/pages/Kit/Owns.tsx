/** What is carried beside lines and flies: a plan uses only that. */
import { type Settings, useReader } from "../../lib/session";
import { Tick } from "../../ui/controls";
import { words } from "./strings";

type OwnsOf = NonNullable<Settings["owns"]>;
type FloatKind = NonNullable<OwnsOf["floats"]>[number];
type Tippet = NonNullable<OwnsOf["tippets_x"]>[number];

const FLOATS: FloatKind[] = ["fixed", "release", "sliding"];
const TIPPETS: Tippet[] = [1, 2, 3, 4, 5];

/** The list with one thing in it or not, in the order of all there are. */
function ticked<T>(all: readonly T[], now: readonly T[], one: T, on: boolean): T[] {
  return all.filter((each) => (each === one ? on : now.includes(each)));
}

export function Owns({ value, onChange }: { value: OwnsOf; onChange: (value: OwnsOf) => void }) {
  const { say } = useReader();
  const floats = value.floats ?? FLOATS;
  const tippets = value.tippets_x ?? TIPPETS;
  return (
    <details className="mb-3" data-testid="owns">
      <summary className="min-h-11 cursor-pointer py-2 font-semibold">{say(words.ownsTitle)}</summary>
      <p className="mb-2 text-soft">{words.ownsAbout}</p>
      <fieldset className="mb-2">
        <legend className="font-semibold">{say(words.floats)}</legend>
        {FLOATS.map((kind) => (
          <Tick
            key={kind}
            label={words.floatKinds[kind]}
            checked={floats.includes(kind)}
            onChange={(on) => onChange({ ...value, floats: ticked(FLOATS, floats, kind, on) })}
          />
        ))}
      </fieldset>
      <fieldset className="mb-2">
        <legend className="font-semibold">{words.tippets}</legend>
        <div className="flex flex-wrap gap-x-5">
          {TIPPETS.map((x) => (
            <Tick
              key={x}
              label={`${x}X`}
              checked={tippets.includes(x)}
              onChange={(next) => {
                // The last one stays: flies hang on something.
                if (next || tippets.length > 1)
                  onChange({ ...value, tippets_x: ticked(TIPPETS, tippets, x, next) });
              }}
            />
          ))}
        </div>
      </fieldset>
      <Tick
        label={words.sinkingLeader}
        checked={value.sinking_leader ?? true}
        onChange={(sinking_leader) => onChange({ ...value, sinking_leader })}
      />
    </details>
  );
}
