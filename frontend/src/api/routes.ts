/**
 * Questions by route: `["get", route, what is asked of it]` names one, in the cache and on the device. The types are the
 * library's; of what it does at run time two hooks of five are used, and its others would weigh more than these lines.
 */
import { useQuery } from "@tanstack/react-query";
import type { OpenapiQueryClient } from "openapi-react-query";
import { api } from "./client";
import type { paths } from "./generated/schema";

type Routes = Pick<OpenapiQueryClient<paths>, "queryOptions" | "useQuery">;
type Asked = [method: string, route: string, init?: object, options?: object];
type Ask = (route: string, init: object) => Promise<{ data?: unknown }>;

async function queryFn({ queryKey, signal }: { queryKey: readonly unknown[]; signal: AbortSignal }) {
  const [method, route, init] = queryKey as Asked;
  const ask = api[method.toUpperCase() as "GET"] as unknown as Ask;
  return (await ask(route, { signal, ...init })).data ?? null;
}

const queryOptions = (...[method, route, init, options]: Asked) => ({
  queryKey: init ? [method, route, init] : [method, route],
  queryFn,
  ...options,
});

export const routes = {
  queryOptions,
  useQuery: (...asked: Asked) => useQuery(queryOptions(...asked)),
} as unknown as Routes;

/** A question that is another one where one of these is: what the server answers hangs on more than what is sent. */
export function also<T extends { queryKey: readonly unknown[] }>(question: T, ...on: unknown[]): T {
  return { ...question, queryKey: [...question.queryKey, ...on] };
}
