/** The fly box, what fits today, the tie list, and files in and out. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, need, type Schemas } from "../../api/client";
import { again } from "../../lib/again";
import { asFile } from "../../lib/asFile";
import type { PlanBody } from "../../lib/draft";

export type Fly = Schemas["FlyOut"];

export function useBoxToday(body: PlanBody, ready: boolean) {
  const text = JSON.stringify(body);
  return useQuery({
    queryKey: ["plan", body.water_id, "box", text],
    queryFn: () => need(api.POST("/api/box/today", { body })),
    enabled: ready,
    retry: false,
  });
}

export function useTieList(body: PlanBody, copies: number, ready: boolean) {
  const text = JSON.stringify(body);
  return useQuery({
    queryKey: ["plan", body.water_id, "ties", copies, text],
    queryFn: () => need(api.POST("/api/box/tie-list", { body: { ...body, copies } })),
    enabled: ready,
    retry: false,
  });
}

export function useTakeBox() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (file: File) =>
      need(
        api.POST("/api/kit/box-file", {
          ...asFile(file),
        }),
      ),
    onSuccess: () => void again(client, ["kit"], ["plan"]),
  });
}

/** The build of a fly added up, part by part. */
export function useBuildParts(fly: Fly, open: boolean) {
  return useQuery({
    queryKey: ["fly-build", fly.build],
    queryFn: () =>
      need(api.POST("/api/thread/fly", { body: { build: fly.build as NonNullable<Fly["build"]> } })),
    enabled: open && fly.build != null,
    staleTime: Number.POSITIVE_INFINITY,
  });
}
