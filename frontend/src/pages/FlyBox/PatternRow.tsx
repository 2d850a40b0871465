/** One pattern: what it is in a line; opened, its weight part by part, recipe, steps and how many there are. */
import { useState } from "react";
import { flyBody, useDeleteFly, usePutFly } from "../../lib/kit";
import { useReader } from "../../lib/session";
import { Button } from "../../ui/controls";
import { useDone } from "../../ui/UndoBar";
import { words } from "./strings";
import { type Fly, useBuildParts } from "./useBox";

function sinkText(fly: Fly, feet: boolean): string {
  const speed = Math.abs(fly.sink_m_s);
  const text = feet ? `${(speed / 0.0254).toFixed(1)} in/s` : `${(speed * 100).toFixed(0)} cm/s`;
  return fly.sink_m_s < 0 ? words.rises(text, fly.sink_hook) : words.sinkAt(text, fly.sink_hook);
}

function Parts({ fly }: { fly: Fly }) {
  const parts = useBuildParts(fly, true).data?.parts ?? [];
  return (
    <div>
      <h4 className="font-semibold">{words.build}</h4>
      <p>
        {words.grams(fly.submerged_g)}
        {!fly.own_build && `, ${words.usualBuild}`}
      </p>
      <ul className="text-[0.92rem] text-soft">
        {parts.map((p) => (
          <li key={p.part}>
            {p.part}: {p.submerged_g.toFixed(3)} g
          </li>
        ))}
      </ul>
    </div>
  );
}

function Counts({ fly }: { fly: Fly }) {
  const put = usePutFly();
  const at = (hook: number) => fly.counts.find((c) => c.hook === hook && c.colour === "")?.count;
  const set = (hook: number, text: string) => {
    const count = text.trim() === "" ? null : Number(text);
    if (count !== null && (!Number.isInteger(count) || count < 0)) return;
    const rest = fly.counts.filter((c) => c.hook !== hook || c.colour !== "");
    const counts = count === null ? rest : [...rest, { hook, colour: "", count }];
    put.mutate({
      id: fly.id,
      body: { ...flyBody(fly), counts, stock: counts.length > 0 ? fly.stock : null },
    });
  };
  return (
    <fieldset className="flex flex-wrap items-end gap-3">
      <legend className="font-semibold">{words.counts}</legend>
      {fly.hooks.map((hook) => (
        <label key={hook} htmlFor={`${fly.id}-${hook}`} className="flex items-center gap-1.5">
          {words.countOf(hook)}
          <input
            id={`${fly.id}-${hook}`}
            inputMode="numeric"
            placeholder="?"
            defaultValue={at(hook) ?? ""}
            onBlur={(e) => e.target.value !== String(at(hook) ?? "") && set(hook, e.target.value)}
            className="min-h-11 w-14 rounded-md border-2 border-edge bg-raised px-2 text-right"
          />
        </label>
      ))}
    </fieldset>
  );
}

function Recipe({ fly }: { fly: Fly }) {
  const { say } = useReader();
  const { materials, steps } = fly.recipe;
  if (materials.length === 0 && steps.length === 0) return <p className="text-soft">{words.noRecipe}</p>;
  return (
    <>
      <div>
        <h4 className="font-semibold">{words.recipe}</h4>
        <dl className="grid grid-cols-[6rem_1fr] gap-x-3">
          {materials.map((m, i) => (
            <div key={i} className="contents">
              <dt className="text-soft">{m.part}</dt>
              <dd>{[m.colour, m.what, m.size].filter(Boolean).join(" ")}</dd>
            </div>
          ))}
        </dl>
      </div>
      <div>
        <h4 className="font-semibold">{words.steps}</h4>
        <ol className="corded space-y-1">
          {steps.map((step, i) => (
            <li key={i} className="knot">
              {i + 1}. {say(step.text)}
              {step.caution && <span className="block text-warm">{say(step.caution)}</span>}
            </li>
          ))}
        </ol>
      </div>
    </>
  );
}

interface Props {
  fly: Fly;
  onOpen: (open: boolean) => void;
  onEdit: () => void;
}

export function PatternRow({ fly, onOpen, onEdit }: Props) {
  const { say, settings } = useReader();
  const [open, setOpen] = useState(false);
  const remove = useDeleteFly();
  const put = usePutFly();
  const done = useDone();
  const takeOut = () =>
    remove.mutate(fly.id, {
      onSuccess: () =>
        done({ text: words.removed(fly.name), undo: () => put.mutate({ id: fly.id, body: flyBody(fly) }) }),
    });
  return (
    <li className="border-b border-rule">
      <details
        open={open}
        onToggle={(e) => {
          setOpen(e.currentTarget.open);
          onOpen(e.currentTarget.open);
        }}
      >
        <summary className="grid min-h-11 cursor-pointer grid-cols-[1fr_auto] gap-x-3 py-1.5">
          <b>{say(fly.name)}</b>
          <span>
            {fly.stock === null || fly.stock === undefined ? words.uncounted : words.stock(fly.stock)}
          </span>
          <span className="col-span-2 text-[0.92rem] text-soft">
            {fly.sink_class} · {sinkText(fly, settings.depth_unit === "ft")} ·{" "}
            {words.hooks(fly.hooks.join(", "))} · {words.tones[fly.tone]}
          </span>
        </summary>
        {open && (
          <div className="space-y-3 pb-4 pl-4">
            <Counts fly={fly} />
            <Parts fly={fly} />
            <Recipe fly={fly} />
            <p className="flex gap-2">
              <Button onClick={onEdit}>{words.edit}</Button>
              <Button look="quiet" onClick={takeOut}>
                {words.remove}
              </Button>
            </p>
          </div>
        )}
      </details>
    </li>
  );
}
