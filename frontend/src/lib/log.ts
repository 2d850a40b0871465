/** The log's list, asked for by its page and kept beforehand for the dark. */
import { queryOptions } from "@tanstack/react-query";
import { api, need } from "../api/client";
import type { paths } from "../api/generated/schema";

export type Filter = Omit<NonNullable<paths["/api/log"]["get"]["parameters"]["query"]>, "most">;
export const LOG_PAGE = 100;

export const logQuery = (filter: Filter = {}, most = LOG_PAGE) =>
  queryOptions({
    queryKey: ["log", filter, most],
    queryFn: () => need(api.GET("/api/log", { params: { query: { ...filter, most } } })),
  });
