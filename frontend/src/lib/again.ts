/** Ask again after a write. */
import type { Query, QueryClient, QueryKey } from "@tanstack/react-query";
import type { paths } from "../api/generated/schema";

type Route = keyof paths;

/** The questions of a route; with `/*` of it and of every route below; with values in its path, of one row; `session` is the page's own. */
export type Asked = Route | `${Route}/*` | [Route, Record<string, string>] | "session";

/** What is made of waters, lines and flies: whoever changes one asks for these again. */
export const PLANS: Asked[] = ["/api/plans/preview", "/api/box/today", "/api/box/tie-list"];

/** @tested */
export function isOf(asked: Asked, { queryKey }: Query): boolean {
  const [route, path] = typeof asked === "string" ? [asked, {}] : asked;
  if (route === "session") return queryKey[0] === route;
  const its = String(queryKey[1]);
  if (route.endsWith("/*")) return `${its}/`.startsWith(route.slice(0, -1));
  const init = queryKey[2] as { params?: { path?: Record<string, string> } } | undefined;
  return its === route && Object.entries(path).every(([name, value]) => init?.params?.path?.[name] === value);
}

/**
 * These are asked again; with none named, everything there is. A first answer still under way may be older than the
 * write, and would be kept for good: it is dropped first.
 */
export async function again(client: QueryClient, ...all: Asked[]): Promise<void> {
  const predicate = (query: Query) => all.length === 0 || all.some((asked) => isOf(asked, query));
  await client.cancelQueries({ predicate });
  await client.invalidateQueries({ predicate });
}

/** A write's own answer, put where a question's answer would stand; one still under way would be older. */
export function answered<T>(
  client: QueryClient,
  queryKey: QueryKey,
  value: T | ((old: T | undefined) => T | undefined),
) {
  void client.cancelQueries({ queryKey, exact: true });
  client.setQueryData<T>(queryKey, value as T);
}
