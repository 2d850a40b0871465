/** The angler's waters, and the one in hand. */
import { useSearchParams } from "wouter";
import type { Schemas } from "../api/client";
import { routes } from "../api/routes";
import { load, save } from "./store";

export type Water = Schemas["WaterOut"];

export function useWaters() {
  return routes.useQuery("get", "/api/waters");
}

/** The water named in the address, else the last one used, else the first. */
export function useWater() {
  const waters = useWaters();
  const [search, setSearch] = useSearchParams();
  const wanted = search.get("w") ?? load<string>("water", "");
  const list = waters.data ?? [];
  const unknown = search.get("w") !== null && !list.some((w) => w.id === search.get("w"));
  const water = list.find((w) => w.id === wanted) ?? (unknown ? undefined : list[0]);
  const choose = (id: string) => {
    save("water", id);
    setSearch({ w: id });
  };
  return { ...waters, list, water, unknown, choose };
}

/** The newest reading of a water: asked once, and again by whoever writes one. */
export const newestReading = (water_id: string) =>
  routes.queryOptions(
    "get",
    "/api/waters/{water_id}/readings",
    { params: { path: { water_id }, query: { count: 1 } } },
    { staleTime: Number.POSITIVE_INFINITY },
  );
