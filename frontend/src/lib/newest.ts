import { routes } from "../api/routes";

/** The newest reading of a water: asked once, and again by whoever writes one. */
export const newestReading = (water_id: string) =>
  routes.queryOptions(
    "get",
    "/api/waters/{water_id}/readings",
    { params: { path: { water_id }, query: { count: 1 } } },
    { staleTime: Number.POSITIVE_INFINITY },
  );
