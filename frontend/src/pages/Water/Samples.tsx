/** Throat samples: what one fish had in it, counted by kind, size, colour, fresh or digested. */
import { useState } from "react";
import {
  SampleItem_count_least,
  SampleItem_count_most,
  SampleItem_size_mm_least,
  SampleItem_size_mm_most,
} from "../../api/generated/limits";
import { PreyOptions } from "../../components/PreyOptions";
import { useCatalogue } from "../../lib/catalogue";
import type { Sample } from "../../lib/draft";
import { useBoxes } from "../../lib/reading";
import { useReader } from "../../lib/session";
import { typedNumber } from "../../lib/units";
import { within } from "../../lib/within";
import { Button, Fault, Field, NumberBox, Select } from "../../ui/controls";
import { Sheet } from "../../ui/Sheet";
import { words } from "./strings";

type Item = Sample["items"][number];

interface Typed {
  prey: string;
  count: string;
  size: string;
  colour: string;
  state: "live" | "digested";
}

const EMPTY: Typed = { prey: "", count: "", size: "", colour: "", state: "live" };

/** The typed kinds as a sample, or what is wrong with the first that cannot be read. */
function read(items: Typed[]): { sample: Sample | null; wrong: { row: number; text: string } | null } {
  const found: Item[] = [];
  for (const [row, item] of items.entries()) {
    if (!item.prey && !item.count && !item.size) continue;
    const count = typedNumber(item.count);
    const size = typedNumber(item.size);
    if (!item.prey) return { sample: null, wrong: { row, text: words.needKind } };
    if (
      count === null ||
      !Number.isInteger(count) ||
      !within(count, SampleItem_count_least, SampleItem_count_most)
    )
      return { sample: null, wrong: { row, text: words.needCount } };
    if (size !== null && !within(size, SampleItem_size_mm_least, SampleItem_size_mm_most))
      return { sample: null, wrong: { row, text: words.needSize } };
    found.push({
      prey: item.prey as Item["prey"],
      count,
      size_mm: size,
      colour: (item.colour || null) as Item["colour"],
      state: item.state,
    });
  }
  return found.length > 0
    ? { sample: { items: found }, wrong: null }
    : { sample: null, wrong: { row: 0, text: words.needKind } };
}

function SampleSheet({ onClose }: { onClose: () => void }) {
  const { draft, change } = useBoxes("samples");
  const catalogue = useCatalogue().data;
  const [items, setItems] = useState<Typed[]>([{ ...EMPTY }, { ...EMPTY }]);
  const [tried, setTried] = useState(false);
  const { sample, wrong } = read(items);
  const set = (index: number, part: Partial<Typed>) =>
    setItems(items.map((item, i) => (i === index ? { ...item, ...part } : item)));
  const keep = () => {
    setTried(true);
    if (!sample) return;
    change({ samples: [...draft.samples, sample] });
    onClose();
  };
  return (
    <Sheet onClose={onClose} title={words.sample} about={words.sampleAbout}>
      <ol className="space-y-3">
        {items.map((item, i) => (
          <li key={i} className="border-b border-rule pb-3">
            <div className="grid grid-cols-2 gap-2 min-[26rem]:grid-cols-[2fr_1fr_1fr]">
              <Field label={words.sampleKind(i + 1)} className="col-span-2 min-[26rem]:col-span-1">
                {(p) => (
                  <Select {...p} value={item.prey} onChange={(e) => set(i, { prey: e.target.value })}>
                    <PreyOptions />
                  </Select>
                )}
              </Field>
              <Field label={words.howMany}>
                {(p) => (
                  <NumberBox {...p} value={item.count} onChange={(e) => set(i, { count: e.target.value })} />
                )}
              </Field>
              <Field label={words.size}>
                {(p) => (
                  <NumberBox
                    {...p}
                    unit="mm"
                    value={item.size}
                    onChange={(e) => set(i, { size: e.target.value })}
                  />
                )}
              </Field>
              <Field label={words.colour}>
                {(p) => (
                  <Select {...p} value={item.colour} onChange={(e) => set(i, { colour: e.target.value })}>
                    <option value="">–</option>
                    {catalogue?.colours.map((colour) => (
                      <option key={colour} value={colour}>
                        {colour}
                      </option>
                    ))}
                  </Select>
                )}
              </Field>
              <Field label={words.state}>
                {(p) => (
                  <Select
                    {...p}
                    value={item.state}
                    onChange={(e) => set(i, { state: e.target.value as Typed["state"] })}
                  >
                    <option value="live">{words.fresh2}</option>
                    <option value="digested">{words.digested}</option>
                  </Select>
                )}
              </Field>
            </div>
            {tried && wrong?.row === i && (
              <Fault problem={{ code: "form", path: "", message: wrong.text, accepted: "", hint: "" }} />
            )}
          </li>
        ))}
      </ol>
      <div className="mt-3 flex gap-2">
        <Button onClick={() => setItems([...items, { ...EMPTY }])}>{words.moreKinds}</Button>
        <Button look="main" onClick={keep}>
          {words.keepSample}
        </Button>
      </div>
      <p className="mt-2 text-[0.92rem] text-soft">{words.sampleCare}</p>
    </Sheet>
  );
}

export function Samples() {
  const { draft, change } = useBoxes("samples");
  const { say } = useReader();
  const names = new Map(useCatalogue().data?.prey.map((p) => [p.key, p.name]));
  const [open, setOpen] = useState(false);
  return (
    <div>
      {draft.samples.length > 0 && (
        <ul className="mb-1.5 space-y-1">
          {draft.samples.map((sample, i) => (
            <li key={i} className="flex items-center justify-between gap-2 border-l-4 border-weed pl-2">
              <span>
                {sample.items
                  .map((item) => `${item.count} ${say(names.get(item.prey) ?? item.prey).toLowerCase()}`)
                  .join(", ")}
              </span>
              <Button
                look="quiet"
                className="px-2 text-xl !no-underline"
                aria-label={words.removeSample(i + 1)}
                onClick={() => change({ samples: draft.samples.filter((_, k) => k !== i) })}
              >
                ×
              </Button>
            </li>
          ))}
        </ul>
      )}
      <Button onClick={() => setOpen(true)}>{words.addSample}</Button>
      {open && <SampleSheet onClose={() => setOpen(false)} />}
    </div>
  );
}
