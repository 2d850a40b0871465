import { type QueryClient, useMutation, useQueryClient } from "@tanstack/react-query";
import { useLocation } from "wouter";
import { ApiError, api, need, OfflineError } from "../../api/client";
import { routes } from "../../api/routes";
import { again, answered } from "../../lib/again";
import { nowIso } from "../../lib/clock";
import type { PlanBody } from "../../lib/draft";
import type { Water } from "../../lib/waters";
import { begunInTheDark, type StartIds, startIds } from "../../offline/dark";
import type { Outbox, Write } from "../../offline/outbox";
import { laidOver, type Outing, revisionOf, spellBody } from "../../offline/overlay";
import { keepAnswer } from "../../offline/persist";
import type { Preview } from "../../offline/ready";
import { rememberUndo } from "../../offline/undos";
import { outingAsked, useOutbox } from "../../offline/useOuting";
import { words } from "./strings";

const RUNNING = routes.queryOptions("get", "/api/outings/running").queryKey;

interface Pressed {
  body: PlanBody;
  /** The plan as it was seen, and its water: enough to begin without signal. */
  seen?: { plan: Preview | undefined; water: Water };
  key: string;
  /** What it is called, to take the change back by. */
  title: string;
  /** The outing on the go that it goes into; null starts one. */
  into: string | null;
}

async function begin({ body, key, into }: Pressed, ids: StartIds): Promise<Outing> {
  const plan = await need(api.PUT("/api/plans/{plan_id}", { params: { path: { plan_id: ids.plan } }, body }));
  // By name: what was pressed is what is fished, however the plan ranks it by now.
  const setUp = plan.answer.set_ups.findIndex((one) => one.key === key);
  if (setUp < 0)
    throw new ApiError(409, [
      { code: "changed", path: "", message: words.planMoved, accepted: "", hint: "" },
    ]);
  const params = { path: { plan_id: plan.id } };
  const told = {
    outing_id: into ?? ids.outing,
    spell_id: ids.spell,
    set_up: setUp,
    started_at: nowIso(),
  };
  return into === null
    ? need(api.POST("/api/plans/{plan_id}/start", { params, body: told }))
    : need(api.POST("/api/plans/{plan_id}/go-over", { params, body: told }));
}

/** Begin an outing on this device alone, or go on in the one there is; everything arrives later. */
async function inTheDark(
  box: Outbox,
  client: QueryClient,
  { seen, body, key, into }: Pressed,
  ids: StartIds,
): Promise<Outing | null> {
  const begun = seen?.plan ? begunInTheDark(seen.water, { body, plan: seen.plan }, key, ids) : null;
  if (!begun) return null;
  const { outing, writes } = begun;
  if (into === null) {
    answered(client, outingAsked(outing.id).queryKey, outing);
    answered(client, RUNNING, { outing, title: outing.methods[0] ?? "" });
    keepAnswer(client, outingAsked(outing.id).queryKey);
    keepAnswer(client, RUNNING);
    for (const write of writes) await box.add(words.start, write);
    return outing;
  }
  const old = client.getQueryData<Outing>(outingAsked(into).queryKey);
  if (!old) return null;
  for (const spell of laidOver(old, box.snapshot()).spells.filter((one) => one.ended_at === null)) {
    const ended = { ...spellBody(spell), ended_at: outing.started_at };
    const end: Write = { kind: "spell", outing: into, id: spell.id, body: ended };
    await box.add(words.start, end, revisionOf(old, end));
  }
  const [, started] = writes;
  if (started?.kind === "spell" && started.body)
    await box.add(words.start, { ...started, outing: into, body: { ...started.body, set_up_index: null } });
  return laidOver(old, box.snapshot());
}

/** Freeze the plan, and fish one of its set-ups: in the outing on the go, or in one that starts with it. */
export function useStart() {
  const client = useQueryClient();
  const { box } = useOutbox();
  const [, go] = useLocation();
  return useMutation({
    mutationFn: async (pressed: Pressed) => {
      const ids = startIds();
      try {
        return { outing: await begin(pressed, ids), arrived: true };
      } catch (error) {
        // No answer: begun here, under the same ids, in case the server has heard it after all.
        const outing = error instanceof OfflineError ? await inTheDark(box, client, pressed, ids) : null;
        if (outing === null) throw error;
        return { outing, arrived: false };
      }
    },
    onSuccess: ({ outing, arrived }, { into, title }) => {
      const [before, now] = outing.spells.slice(-2);
      if (into !== null && before && now) {
        const kind = "spell" as const;
        rememberUndo(outing.id, title, [
          { kind, outing: outing.id, id: now.id, body: null },
          { kind, outing: outing.id, id: before.id, body: { ...spellBody(before), ended_at: null } },
        ]);
      }
      // Begun here, what the page shows is in its place already, with what waits laid over it.
      if (arrived) {
        answered(client, outingAsked(outing.id).queryKey, outing);
        void again(client, "/api/log/*", "/api/outings/running");
      }
      go(`/fish/${outing.id}?w=${outing.water_id}`);
    },
  });
}
