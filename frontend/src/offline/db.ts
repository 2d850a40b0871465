/** The device's own store: answers for the dark, writes on their way, and the plan to start with. */
import type { DBSchema, IDBPDatabase } from "idb";
import type { Entry } from "./outbox";

interface Store extends DBSchema {
  /** Answers of the server, by the hash of their question. */
  answers: { key: string; value: string };
  /** Writes that have not arrived, in the order they were made. */
  outbox: { key: number; value: Entry & { owner: string; seq?: number }; indexes: { owner: string } };
  /** Single things, by name. */
  things: { key: string; value: unknown };
}

let opened: Promise<IDBPDatabase<Store>> | null = null;

/** Rejects where the browser gives no store. */
export function db(): Promise<IDBPDatabase<Store>> {
  opened ??= open().catch((error) => {
    opened = null;
    throw error;
  });
  return opened;
}

async function open(): Promise<IDBPDatabase<Store>> {
  const { openDB } = await import("idb");
  return openDB<Store>("still-thread", 1, {
    upgrade(made) {
      made.createObjectStore("answers");
      made.createObjectStore("things");
      const box = made.createObjectStore("outbox", { keyPath: "seq", autoIncrement: true });
      box.createIndex("owner", "owner");
    },
    // Another page of a newer version wants the store: let it have it; this page asks again when it needs it.
    blocking(_current, _next, event) {
      (event.target as IDBDatabase).close();
      opened = null;
    },
    terminated() {
      opened = null;
    },
  });
}

export async function keepThing(name: string, value: unknown): Promise<void> {
  await (await db()).put("things", value, name);
}

export async function keptThing<T>(name: string): Promise<T | undefined> {
  try {
    return (await (await db()).get("things", name)) as T | undefined;
  } catch {
    return undefined;
  }
}

/** Everything that belongs to whoever was signed in goes, but for what has not arrived. */
export async function forgetAnswers(): Promise<void> {
  try {
    const store = await db();
    await store.clear("answers");
    await store.clear("things");
    await (await import("./pictures")).forgetSent();
  } catch {
    // No store, nothing kept.
  }
}

/** Ask the browser not to throw the store away when it is short of room. */
export function askToPersist() {
  void navigator.storage?.persist?.().catch(() => undefined);
}
