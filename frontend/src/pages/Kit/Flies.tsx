import { Link } from "wouter";
import type { Schemas } from "../../api/client";
import { flyBody, useAddStarter, useDeleteFly, usePutFly } from "../../lib/kit";
import { useReader } from "../../lib/session";
import { Button } from "../../ui/controls";
import { useDone } from "../../ui/UndoBar";
import { words } from "./strings";

type Fly = Schemas["FlyOut"];

function FlyRow({ fly }: { fly: Fly }) {
  const { say } = useReader();
  const put = usePutFly();
  const remove = useDeleteFly();
  const done = useDone();
  return (
    <li className="knot flex items-center gap-3 border-b border-rule">
      <span className="flex-1 leading-tight">
        <b>{say(fly.name)}</b>
        <span className="block text-[0.92rem] text-soft">
          {words.sizes} {fly.hooks.join(", ")} · {fly.tone} · {words.weights[fly.weight]}
        </span>
      </span>
      <input
        aria-label={`${words.stock}: ${fly.name}`}
        title={words.stock}
        placeholder="?"
        inputMode="numeric"
        defaultValue={fly.stock ?? ""}
        className="min-h-11 w-14 rounded-md border-2 border-edge bg-raised px-2 text-right"
        onBlur={(e) => {
          const text = e.target.value.trim();
          const stock = text === "" ? null : Number(text);
          if (stock !== (fly.stock ?? null) && (stock === null || (Number.isInteger(stock) && stock >= 0))) {
            put.mutate({ id: fly.id, body: { ...flyBody(fly), stock } });
          } else if (stock !== (fly.stock ?? null)) {
            e.target.value = fly.stock === null || fly.stock === undefined ? "" : String(fly.stock);
          }
        }}
      />
      <Button
        look="quiet"
        className="!px-3 text-xl !no-underline"
        aria-label={words.remove(fly.name)}
        onClick={() =>
          remove.mutate(fly.id, {
            onSuccess: () =>
              done({ text: words.removed, undo: () => put.mutate({ id: fly.id, body: flyBody(fly) }) }),
          })
        }
      >
        ×
      </Button>
    </li>
  );
}

export function Flies({ flies, starter }: { flies: Fly[]; starter: Schemas["StarterFly"][] }) {
  const add = useAddStarter();
  const missing = starter.filter((s) => !flies.some((fly) => fly.name === s.name));
  return (
    <section>
      <h2>{words.flies}</h2>
      <p className="text-soft">{flies.length === 0 ? words.noFlies : words.flyCount(flies.length)}</p>
      {flies.length > 0 && <p className="pr-14 text-right text-[0.92rem] text-soft">{words.stock}</p>}
      <ul className="corded my-2">
        {flies.map((fly) => (
          <FlyRow key={fly.id} fly={fly} />
        ))}
      </ul>
      <p className="mb-2">
        <Link to="/kit/box">{words.toBox}</Link>
      </p>
      {missing.length > 0 && (
        <Button onClick={() => add.mutate(missing.map((fly) => fly.key))} disabled={add.isPending}>
          {flies.length === 0 ? words.addStarter : words.addMissing(missing.length)}
        </Button>
      )}
    </section>
  );
}
