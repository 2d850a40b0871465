/** How an outing is shared with another angler, and what that one fishes. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, need, type Schemas } from "../../api/client";
import { routes } from "../../api/routes";
import { again, answered } from "../../lib/again";

export type Shared = Schemas["TogetherOut"];
type Answer = Shared | null;

const ASK_MS = 20_000;

const togetherAsked = (outing_id: string) =>
  routes.queryOptions("get", "/api/outings/{outing_id}/together", { params: { path: { outing_id } } });

export function useTogether(outing: string) {
  return useQuery({
    ...togetherAsked(outing),
    refetchInterval: (query) => (query.state.data?.open ? ASK_MS : false),
    retry: 1,
  });
}

/** Make a code, end sharing, take the other out. */
export function useSharing(outing: string) {
  const client = useQueryClient();
  const params = { path: { outing_id: outing } };
  const keep = (told: Answer | undefined) => {
    answered<Answer>(client, togetherAsked(outing).queryKey, told ?? null);
    void again(client, ["/api/outings/{outing_id}/next", params.path]);
  };
  const share = useMutation({
    mutationFn: () => need(api.PUT("/api/outings/{outing_id}/together", { params })),
    onSuccess: keep,
  });
  const takeOut = useMutation({
    mutationFn: () => need(api.DELETE("/api/outings/{outing_id}/together/partner", { params })),
    onSuccess: keep,
  });
  const end = useMutation({
    mutationFn: () => need(api.DELETE("/api/outings/{outing_id}/together", { params })),
    onSuccess: () =>
      again(
        client,
        ["/api/outings/{outing_id}/together", params.path],
        ["/api/outings/{outing_id}/next", params.path],
      ),
  });
  return { share, takeOut, end };
}

export function useJoin() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (code: string) =>
      need(api.POST("/api/together/join", { body: { code, outing_id: crypto.randomUUID() } })),
    onSuccess: () =>
      again(client, "/api/waters", "/api/waters/{water_id}/readings/*", "/api/outings/running", "/api/log/*"),
  });
}
