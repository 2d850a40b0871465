/** Rigs kept, rigs loaded: the angler's own, and the set-ups of the plan in hand. */
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { ApiError, type Schemas } from "../../api/client";
import { RigBody_name_longest } from "../../api/generated/limits";
import { letter } from "../../lib/cord";
import { useReader } from "../../lib/session";
import { Button, Fault, Field, TextBox } from "../../ui/controls";
import { useDone } from "../../ui/UndoBar";
import { Part } from "./RigForm";
import type { RigDoc } from "./rig";
import { words } from "./strings";
import { useDeleteRig, usePutRig, useRigs } from "./useThread";

/** The newest plan the pages have fetched, if any. */
function useLatestPlan(): Schemas["PlanAnswer"] | undefined {
  const client = useQueryClient();
  const plans = client.getQueriesData<Schemas["PlanAnswer"]>({ queryKey: ["post", "/api/plans/preview"] });
  return plans
    .map(([, data]) => data)
    .filter((data) => data?.set_ups)
    .at(-1);
}

export function Rigs({ rig, onLoad }: { rig: RigDoc; onLoad: (rig: RigDoc) => void }) {
  const { say } = useReader();
  const kept = useRigs();
  const put = usePutRig();
  const remove = useDeleteRig();
  const done = useDone();
  const plan = useLatestPlan();
  const [name, setName] = useState("");
  const problems = put.error instanceof ApiError ? put.error.problems : [];
  const drop = (one: Schemas["RigOut"]) =>
    remove.mutate(one.id, {
      onSuccess: () =>
        done({
          text: words.removed(one.name),
          undo: () => put.mutate({ id: one.id, body: { name: one.name, document: one.document } }),
        }),
    });
  const planned = plan?.set_ups.filter((s) => s.simulate) ?? [];
  return (
    <Part title={words.rigs}>
      <h4 className="font-bold">{words.fromPlan}</h4>
      {planned.length === 0 && <p className="text-soft">{words.noPlan}</p>}
      <ul className="flex flex-wrap gap-2">
        {planned.map((s) => (
          <li key={s.key || s.method}>
            <Button onClick={() => s.simulate && onLoad(s.simulate)}>
              {letter(plan?.set_ups.indexOf(s) ?? 0)} · {say(s.title)}
            </Button>
          </li>
        ))}
      </ul>
      <ul className="corded space-y-1">
        {kept.data?.map((one) => (
          <li key={one.id} className="knot flex items-center gap-2">
            <span className="flex-1 font-semibold">{one.name}</span>
            <Button onClick={() => onLoad(one.document)}>{words.load1}</Button>
            <Button look="quiet" aria-label={words.drop(one.name)} onClick={() => drop(one)}>
              ×
            </Button>
          </li>
        ))}
      </ul>
      {kept.data?.length === 0 && <p className="text-soft">{words.noRigs}</p>}
      <div className="flex flex-wrap items-end gap-2">
        <Field label={words.rigName} className="w-60">
          {(p) => (
            <TextBox
              {...p}
              maxLength={RigBody_name_longest}
              value={name}
              onChange={(e) => setName(e.target.value)}
            />
          )}
        </Field>
        <Button
          disabled={name.trim() === "" || put.isPending}
          onClick={() =>
            put.mutate(
              { id: crypto.randomUUID(), body: { name: name.trim(), document: rig } },
              {
                onSuccess: () => {
                  done({ text: words.saved(name.trim()) });
                  setName("");
                },
              },
            )
          }
        >
          {words.save}
        </Button>
      </div>
      {problems[0] && <Fault problem={problems[0]} />}
    </Part>
  );
}
