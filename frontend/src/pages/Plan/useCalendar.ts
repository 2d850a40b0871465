import { useMutation } from "@tanstack/react-query";
import { api, need, type Schemas } from "../../api/client";
import type { PlanBody } from "../../lib/draft";
import { useReader } from "../../lib/session";
import { useDepthWords } from "./SetUpRow";
import { words } from "./strings";

const SET_UPS = 2;

/** The plan as a calendar entry says it: what to stop for, the first set-ups, what to mind; in chosen words and units. */
function useLines() {
  const { say } = useReader();
  const depthWords = useDepthWords();
  return (plan: Schemas["PlanAnswer"]): string[] => {
    const cautions = (level: "stop" | "caution") =>
      plan.cautions
        .filter((one) => one.level === level)
        .map((one) => `${words.levels[level]}. ${say(one.sentence)}`);
    const setUps = plan.set_ups.slice(0, SET_UPS).map((one) => {
      const flies = one.flies.map((fly) => `${say(fly.name)} ${fly.hook} (${fly.position})`).join(", ");
      return `${say(one.title)}: ${depthWords(one)}. ${flies}. ${say(one.retrieve.words)}.`;
    });
    return [...cautions("stop"), ...setUps, ...cautions("caution"), words.rulesFirst];
  };
}

/** Keep the plan and fetch it as a calendar file, which the device then offers to open. */
export function useCalendar() {
  const lines = useLines();
  return useMutation({
    mutationFn: async (body: PlanBody) => {
      const plan = await need(
        api.PUT("/api/plans/{plan_id}", { params: { path: { plan_id: crypto.randomUUID() } }, body }),
      );
      const file = await need(
        api.POST("/api/plans/{plan_id}/calendar.ics", {
          params: { path: { plan_id: plan.id } },
          body: { lines: lines(plan.answer) },
          parseAs: "blob",
        }),
      );
      const link = document.createElement("a");
      link.href = URL.createObjectURL(file as unknown as Blob);
      link.download = "outing.ics";
      link.click();
      setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
    },
  });
}
