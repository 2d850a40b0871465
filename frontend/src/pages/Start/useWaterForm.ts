/** Writing a water, and taking it away. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, need, type Schemas } from "../../api/client";
import { again } from "../../lib/again";

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
    onSuccess: () => again(client, "/api/waters"),
  });
}
