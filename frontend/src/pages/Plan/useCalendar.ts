import { useMutation } from "@tanstack/react-query";
import { api, need } from "../../api/client";
import type { PlanBody } from "../../lib/draft";

/** Keep the plan and fetch it as a calendar file, which the device then offers to open. */
export function useCalendar() {
  return useMutation({
    mutationFn: async (body: PlanBody) => {
      const plan = await need(
        api.PUT("/api/plans/{plan_id}", { params: { path: { plan_id: crypto.randomUUID() } }, body }),
      );
      const link = document.createElement("a");
      link.href = `/api/plans/${plan.id}/calendar.ics`;
      link.download = "outing.ics";
      link.click();
    },
  });
}
