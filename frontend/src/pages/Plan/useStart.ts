import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useLocation } from "wouter";
import { ApiError, api, need } from "../../api/client";
import { again, answered } from "../../lib/again";
import type { PlanBody } from "../../lib/draft";
import { spellBody } from "../../offline/overlay";
import { rememberUndo } from "../../offline/undos";
import { words } from "./strings";

interface Pressed {
  body: PlanBody;
  key: string;
  /** What it is called, to take the change back by. */
  title: string;
  /** The outing on the go that it goes into; null starts one. */
  into: string | null;
}

/** Freeze the plan, and fish one of its set-ups: in the outing on the go, or in one that starts with it. */
export function useStart() {
  const client = useQueryClient();
  const [, go] = useLocation();
  return useMutation({
    mutationFn: async ({ body, key, into }: Pressed) => {
      const plan = await need(
        api.PUT("/api/plans/{plan_id}", { params: { path: { plan_id: crypto.randomUUID() } }, body }),
      );
      // By name: what was pressed is what is fished, however the plan ranks it by now.
      const setUp = plan.answer.set_ups.findIndex((one) => one.key === key);
      if (setUp < 0)
        throw new ApiError(409, [
          { code: "changed", path: "", message: words.planMoved, accepted: "", hint: "" },
        ]);
      const params = { path: { plan_id: plan.id } };
      const asked = {
        outing_id: into ?? crypto.randomUUID(),
        spell_id: crypto.randomUUID(),
        set_up: setUp,
        started_at: new Date().toISOString(),
      };
      return into === null
        ? need(api.POST("/api/plans/{plan_id}/start", { params, body: asked }))
        : need(api.POST("/api/plans/{plan_id}/go-over", { params, body: asked }));
    },
    onSuccess: (outing, { into, title }) => {
      const [before, now] = outing.spells.slice(-2);
      if (into !== null && before && now) {
        const kind = "spell" as const;
        rememberUndo(outing.id, title, [
          { kind, outing: outing.id, id: now.id, body: null },
          { kind, outing: outing.id, id: before.id, body: { ...spellBody(before), ended_at: null } },
        ]);
      }
      answered(client, ["outing", outing.id], outing);
      void again(client, ["log"], ["running"]);
      go(`/fish/${outing.id}?w=${outing.water_id}`);
    },
  });
}
