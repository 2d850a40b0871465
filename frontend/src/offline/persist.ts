/** Answers that a day on the water needs are kept on the device, and stand in where the server cannot be asked. */
import type { QueryClient, QueryKey, QueryPersister } from "@tanstack/react-query";
import { OfflineError } from "../api/client";
import type { paths } from "../api/generated/schema";

const LATE = Symbol("late");

/** The questions whose answers are kept: by route, and those that the pages ask themselves. */
const KEPT = new Set<string>([
  "/api/waters",
  "/api/kit",
  "/api/log",
  "/api/outings/running",
  "/api/outings/{outing_id}",
  "/api/outings/{outing_id}/next",
  "/api/outings/{outing_id}/ahead",
  "/api/outings/{outing_id}/together",
  "/api/outings/{outing_id}/belief",
  "/api/waters/{water_id}/readings",
  "/api/waters/{water_id}/readings/{reading_id}",
  "/api/food/catalogue",
  "/api/schools",
  "/api/plans/preview",
  "/api/box/today",
  "/api/box/tie-list",
  "if-blank",
  "best-now",
] satisfies (keyof paths | "if-blank" | "best-now")[]);

const isKept = ([word, route]: QueryKey) => KEPT.has(String(word)) || KEPT.has(String(route));

const fetched = import("./persister").then((found) => found.persister);
// Not to be had: then nothing is kept, and nothing stops.
fetched.catch(() => undefined);

/** A server that takes longer than this to answer is not waited for where there is an answer kept. */
const PATIENCE_MS = 4_000;

/** The server first; what is kept of its earlier answers where it cannot be asked, with its age. */
export const persisterFn: QueryPersister = async (queryFn, context, query) => {
  const ask = async () => (queryFn as (told: typeof context) => unknown)(context);
  const kept = isKept(context.queryKey) ? await fetched.catch(() => null) : null;
  if (!kept) return ask();
  const told = ask().then((data) => {
    // Once it stands in the cache.
    setTimeout(() => keepAnswer(context.client, context.queryKey), 0);
    return data;
  });
  told.catch(() => undefined); // answered from what is kept before it failed
  const before = () =>
    kept
      .retrieveQuery(query.queryHash, ({ state }) => query.setState({ dataUpdatedAt: state.dataUpdatedAt }))
      .catch(() => undefined);
  const late = new Promise<undefined>((done) => setTimeout(done, PATIENCE_MS));
  try {
    const first = await Promise.race([told, late.then(() => LATE)]);
    if (first !== LATE) return first;
  } catch (error) {
    const found =
      error instanceof OfflineError && query.state.data === undefined ? await before() : undefined;
    if (found === undefined) throw error;
    return found;
  }
  const stale = query.state.data === undefined ? await before() : undefined;
  if (stale === undefined) return told;
  // What comes late stands in its place.
  told.then((data) => context.client.setQueryData(context.queryKey, data)).catch(() => undefined);
  return stale;
};

/** An answer that the page made itself is kept as one of the server's. */
export function keepAnswer(client: QueryClient, key: QueryKey) {
  void fetched.then((kept) => kept.persistQueryByKey(key, client)).catch(() => undefined);
}

/** What is too old goes; asked once a visit. */
export function clearOut() {
  void fetched.then((kept) => kept.persisterGc()).catch(() => undefined);
}
