/** What the reading in hand means, as the server understands it. */
import { keepPreviousData } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { routes } from "../api/routes";
import { useReading, useStood } from "./reading";

export type Meaning = Schemas["ReadAnswer"];

/** The meaning of the reading in hand; the last good one while a reading needs mending. */
export function useMeaning(waterId: string) {
  const { mending } = useReading("mending");
  const stood = useStood(250);
  const asked = { params: { path: { water_id: waterId } }, body: JSON.parse(stood) as Schemas["ReadBody"] };
  return routes.useQuery("post", "/api/waters/{water_id}/read", asked, {
    enabled: !mending,
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
}
