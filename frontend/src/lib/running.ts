/** The outing on the go: one at a time, as the server has it, with what is still waiting on this device. */
import type { Schemas } from "../api/client";
import { routes } from "../api/routes";
import { useOutbox } from "../offline/useOuting";

interface Running {
  outing: Schemas["OutingSummary"];
  /** What is fished. */
  title: string;
}

export function useRunning() {
  const { entries } = useOutbox();
  const query = routes.useQuery("get", "/api/outings/running", undefined, { retry: 1 });
  const outing = query.data?.outing ?? null;
  const stopped = entries.some(
    ({ write }) =>
      write.kind === "outing" && write.id === outing?.id && (!write.body || write.body.ended_at != null),
  );
  const running: Running | null =
    outing === null || stopped ? null : { outing, title: query.data?.title ?? "" };
  return { ...query, running };
}
