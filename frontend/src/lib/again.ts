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
