/** Ask again after a write. */
import type { QueryClient, QueryKey } from "@tanstack/react-query";

/**
 * Everything below these keys is asked again; with no key, everything there is. A first answer still under way may be
 * older than the write, and would be kept for good: it is dropped first.
 */
export async function again(client: QueryClient, ...keys: QueryKey[]): Promise<void> {
  const filters = keys.length > 0 ? keys.map((queryKey) => ({ queryKey })) : [{}];
  await Promise.all(
    filters.map(async (filter) => {
      await client.cancelQueries(filter);
      await client.invalidateQueries(filter);
    }),
  );
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
