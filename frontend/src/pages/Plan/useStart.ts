import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { ApiError, api, need } from "../../api/client";
import { again, answered } from "../../lib/again";
import type { PlanBody } from "../../lib/draft";
import { words } from "./strings";

/** Freeze the plan, start an outing with one of its set-ups, and go to the water. */
export function useStart() {
  const client = useQueryClient();
  const go = useNavigate();
  return useMutation({
    mutationFn: async ({ body, key }: { body: PlanBody; key: string }) => {
      const plan = await need(
        api.PUT("/api/plans/{plan_id}", { params: { path: { plan_id: crypto.randomUUID() } }, body }),
      );
      // By name: what was pressed is what is fished, however the plan ranks it by now.
      const setUp = plan.answer.set_ups.findIndex((one) => one.key === key);
      if (setUp < 0)
        throw new ApiError(409, [
          { code: "changed", path: "", message: words.planMoved, accepted: "", hint: "" },
        ]);
      return need(
        api.POST("/api/plans/{plan_id}/start", {
          params: { path: { plan_id: plan.id } },
          body: {
            outing_id: crypto.randomUUID(),
            spell_id: crypto.randomUUID(),
            set_up: setUp,
            started_at: new Date().toISOString(),
          },
        }),
      );
    },
    onSuccess: (outing) => {
      answered(client, ["outing", outing.id], outing);
      void again(client, ["log"]);
      go(`/fish/${outing.id}?w=${outing.water_id}`);
    },
  });
}
