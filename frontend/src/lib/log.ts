/** The log's list, asked for by its page and kept beforehand for the dark. */
import type { paths } from "../api/generated/schema";
import { routes } from "../api/routes";

export type Filter = Omit<NonNullable<paths["/api/log"]["get"]["parameters"]["query"]>, "most">;
export const LOG_PAGE = 100;

export const logQuery = (filter: Filter = {}, most = LOG_PAGE) =>
  routes.queryOptions("get", "/api/log", { params: { query: { ...filter, most } } });
