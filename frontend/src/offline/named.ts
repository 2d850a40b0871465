/** What the names of kept answers say: `["get", route, what is asked of it, …]`, as the query client writes them. */

interface Init {
  params?: { path?: Record<string, string>; query?: Record<string, unknown> };
  body?: { water_id?: string };
}

function read(name: string): [string, Init] | null {
  try {
    const [, route, init] = JSON.parse(name) as [unknown, unknown, Init | undefined];
    return typeof route === "string" ? [route, init ?? {}] : null;
  } catch {
    return null;
  }
}

/** Asked anew with every change of a reading or tap: of one water or outing the newest answer alone is kept. */
const NEWEST_ALONE = new Set([
  ...["/api/plans/preview", "/api/box/today", "/api/box/tie-list"],
  ...["/api/outings/{outing_id}/next", "/api/outings/{outing_id}/belief"],
]);

/** What an answer is the newest of; null where all are kept. */
export function groupOf(name: string): string | null {
  const found = read(name);
  if (found === null || !NEWEST_ALONE.has(found[0])) return null;
  const [route, { params, body }] = found;
  return `${route} ${params?.path?.outing_id ?? body?.water_id}`;
}

/** How versions before questions were named by their routes called them: what they kept is still found. */
const BEFORE: Record<string, (init: Init) => unknown[]> = {
  "/api/waters": () => ["waters"],
  "/api/kit": () => ["kit"],
  "/api/outings/running": () => ["running"],
  "/api/outings/{outing_id}": ({ params }) => ["outing", params?.path?.outing_id],
  "/api/waters/{water_id}/readings": ({ params }) => ["readings", params?.path?.water_id],
  "/api/food/catalogue": () => ["catalogue"],
  "/api/schools": () => ["schools"],
  "/api/log": ({ params }) => {
    const { most, ...filter } = params?.query ?? {};
    return ["log", filter, most];
  },
};

export function namedBefore(name: string): string | null {
  const found = read(name);
  const before = found && BEFORE[found[0]]?.(found[1]);
  return before ? JSON.stringify(before) : null;
}
