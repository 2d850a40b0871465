/** The fly box, what fits today, the tie list, and files in and out. */

import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, need, type Schemas } from "../../api/client";
import { routes } from "../../api/routes";
import { again, PLANS } from "../../lib/again";
import { asFile } from "../../lib/asFile";
import type { PlanBody } from "../../lib/draft";

export type Fly = Schemas["FlyOut"];

export function useBoxToday(body: PlanBody, ready: boolean) {
  return routes.useQuery("post", "/api/box/today", { body }, { enabled: ready, retry: false });
}

export function useTieList(body: PlanBody, copies: number, ready: boolean) {
  const asked = { body: { ...body, copies } };
  return routes.useQuery("post", "/api/box/tie-list", asked, { enabled: ready, retry: false });
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
    onSuccess: () => void again(client, "/api/kit", ...PLANS),
  });
}

/** The build of a fly added up, part by part. */
export function useBuildParts(fly: Fly, open: boolean) {
  const build = fly.build as NonNullable<Fly["build"]>;
  const shown = { enabled: open && fly.build != null, staleTime: Number.POSITIVE_INFINITY };
  return routes.useQuery("post", "/api/thread/fly", { body: { build } }, shown);
}
