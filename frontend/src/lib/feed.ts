/** The boat feed: its live values, asked for once a second while it is on. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, need, type Schemas } from "../api/client";
import { routes } from "../api/routes";
import { again, answered } from "./again";

export type FeedState = Schemas["FeedOut"];

/** The feed's live values; `eager` asks even while it is off, for the page that connects it. */
export function useFeed(eager = false) {
  return routes.useQuery("get", "/api/feed", undefined, {
    refetchInterval: (query) => {
      const state = query.state.data?.state;
      return state && state !== "off" && state !== "stopped" ? 1000 : eager ? 5000 : false;
    },
    staleTime: 500,
  });
}

export function useFeedActions() {
  const client = useQueryClient();
  const took = (feed: FeedState) => answered(client, routes.queryOptions("get", "/api/feed").queryKey, feed);
  const connect = useMutation({
    mutationFn: (body: Schemas["FeedBody"]) => need(api.POST("/api/feed", { body })),
    onSuccess: took,
  });
  const disconnect = useMutation({
    mutationFn: () => need(api.DELETE("/api/feed")),
    onSuccess: () => again(client, "/api/feed"),
  });
  const record = useMutation({
    mutationFn: (body: Schemas["FeedLineBody"]) => need(api.POST("/api/feed/line", { body })),
    onSuccess: took,
  });
  const stop = useMutation({
    mutationFn: () => need(api.DELETE("/api/feed/line")),
    onSuccess: (feed) => {
      took(feed);
      void again(client, "/api/waters/{water_id}/chart");
    },
  });
  return { connect, disconnect, record, stop };
}
