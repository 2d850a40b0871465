/** Answers that a day on the water needs are kept on the device, and stand in where the server cannot be asked. */
import type { QueryClient, QueryKey, QueryPersister } from "@tanstack/react-query";

import { OfflineError } from "../api/client";

const LATE = Symbol("late");

/** The first word of the questions whose answers are kept. */
const KEPT = new Set([
  ...["waters", "kit", "running", "outing", "log", "reading", "readings", "catalogue", "schools"],
  ...["next", "if-blank", "ahead", "together", "plan", "over-day", "best-now"],
]);

const fetched = import("./persister").then((found) => found.persister);
// Not to be had: then nothing is kept, and nothing stops.
fetched.catch(() => undefined);

/** A server that takes longer than this to answer is not waited for where there is an answer kept. */
const PATIENCE_MS = 4_000;

/** The server first; what is kept of its earlier answers where it cannot be asked, with its age. */
export const persisterFn: QueryPersister = async (queryFn, context, query) => {
  const ask = async () => (queryFn as (told: typeof context) => unknown)(context);
  const kept = KEPT.has(String(context.queryKey[0])) ? await fetched.catch(() => null) : null;
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
