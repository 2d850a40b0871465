/** The angler's waters, and the one in hand. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useSearchParams } from "wouter";
import { api, need, type Schemas } from "../api/client";
import { again } from "./again";
import { load, save } from "./store";

export type Water = Schemas["WaterOut"];

export function useWaters() {
  return useQuery({ queryKey: ["waters"], queryFn: () => need(api.GET("/api/waters")) });
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

export function useSaveWater() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, body }: { id: string; body: Schemas["WaterBody"] }) =>
      need(api.PUT("/api/waters/{water_id}", { params: { path: { water_id: id } }, body })),
    onSuccess: () => again(client),
  });
}

export function useDeleteWater() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: string) =>
      need(api.DELETE("/api/waters/{water_id}", { params: { path: { water_id: id } } })),
    onSuccess: () => again(client, ["waters"]),
  });
}
