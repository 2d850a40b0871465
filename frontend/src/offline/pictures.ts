/** Pictures of photos: kept on the device first, sent once their row has arrived, some of them kept to be looked at in the dark. */
import { type DBSchema, openDB } from "idb";
import { ApiError, api, need } from "../api/client";
import { forget, picturesKey, save } from "../lib/store";

export interface Kept {
  id: string;
  owner: string;
  outing: string;
  picture: Blob;
  at: number;
  /** Why the server would not have it; gone with the photo. */
  refused?: string;
  sent?: boolean;
}

interface Store extends DBSchema {
  pictures: { key: string; value: Kept; indexes: { owner: string } };
}

/** How many of those sent stay on the device. */
const MOST_SENT = 40;
/** A picture whose photo was deleted before it was sent waits this long for that to be undone. */
const FORSAKEN_MS = 7 * 86_400_000;

const db = () =>
  openDB<Store>("still-thread-pictures", 1, {
    upgrade(made) {
      made.createObjectStore("pictures", { keyPath: "id" }).createIndex("owner", "owner");
    },
    blocking: (_current, _next, event) => (event.target as IDBDatabase).close(),
  });

async function mine(owner: string): Promise<Kept[]> {
  const found = await (await db()).getAllFromIndex("pictures", "owner", owner);
  return found.sort((a, b) => a.at - b.at);
}

async function count(owner: string) {
  const waiting = (await mine(owner)).filter((one) => !one.sent && !one.refused).length;
  if (waiting > 0) save(picturesKey(owner), waiting);
  else forget(picturesKey(owner));
}

/** Keep a picture until it is sent. Rejects where the device would not store it. */
export async function keepPicture(owner: string, outing: string, id: string, picture: Blob): Promise<void> {
  await (await db()).put("pictures", { id, owner, outing, picture, at: Date.now() });
  await count(owner);
}

/** The picture as this device has it, if it does. */
export async function keptPicture(owner: string, id: string): Promise<Kept | undefined> {
  try {
    const found = await (await db()).get("pictures", id);
    return found?.owner === owner ? found : undefined;
  } catch {
    return undefined; // no store on this device
  }
}

/** What becomes of one: sent, refused, waiting for its photo, or to be tried again later. */
async function sendOne(one: Kept): Promise<"sent" | "refused" | "waits" | "later"> {
  try {
    await need(
      api.PUT("/api/photos/{photo_id}/picture", {
        params: { path: { photo_id: one.id } },
        body: one.picture as unknown as string,
        bodySerializer: (body) => body as unknown as Blob,
        headers: { "Content-Type": one.picture.type },
      }),
    );
    return "sent";
  } catch (error) {
    if (!(error instanceof ApiError)) return "later";
    if (error.status === 404) return "waits";
    if (error.status !== 413 && error.status !== 422) return "later";
    one.refused = error.problems.map((p) => `${p.message} ${p.accepted}`).join(" ");
    return "refused";
  }
}

async function sendAll(owner: string, arrived: (outing: string) => void) {
  const store = await db();
  const tried = new Set<string>();
  // What is taken while others are on their way goes with them.
  const next = async () => (await mine(owner)).find((one) => !one.sent && !one.refused && !tried.has(one.id));
  for (let one = await next(); one; one = await next()) {
    tried.add(one.id);
    const became = await sendOne(one);
    if (became === "later") break;
    if (became === "waits") {
      if (Date.now() - one.at > FORSAKEN_MS) await store.delete("pictures", one.id);
      continue;
    }
    await store.put("pictures", { ...one, sent: became === "sent" });
    arrived(one.outing);
  }
  const sent = (await mine(owner)).filter((one) => one.sent);
  for (const one of sent.slice(0, Math.max(0, sent.length - MOST_SENT)))
    await store.delete("pictures", one.id);
  await count(owner);
}

/** Send an angler's pictures, one page at a time; `arrived` is told the outing of each. */
export async function sendPictures(owner: string, arrived: (outing: string) => void): Promise<void> {
  if (!navigator.locks) return sendAll(owner, arrived);
  await navigator.locks.request(`pictures:${owner}`, { ifAvailable: true }, async (lock) => {
    if (lock) await sendAll(owner, arrived);
  });
}

/** Take away what has arrived: somebody else signs in on this device. */
export async function forgetSent(): Promise<void> {
  const store = await db();
  for (const one of await store.getAll("pictures")) if (one.sent) await store.delete("pictures", one.id);
}
