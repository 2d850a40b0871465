import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, need } from "../../api/client";
import { again, answered } from "../../lib/again";
import type { PlanBody } from "../../lib/draft";

/** Freeze the plan, start an outing with one of its set-ups, and go to the water. */
export function useStart() {
  const client = useQueryClient();
  const go = useNavigate();
  return useMutation({
    mutationFn: async ({ body, setUp }: { body: PlanBody; setUp: number }) => {
      const plan = await need(
        api.PUT("/api/plans/{plan_id}", { params: { path: { plan_id: crypto.randomUUID() } }, body }),
      );
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
