/** Keeps answers in the device's store and finds them again; fetched beside the page. */
import { experimental_createQueryPersister } from "@tanstack/query-persist-client-core";
import { db } from "./db";

const FOURTEEN_DAYS_MS = 14 * 24 * 3_600_000;
/** Answers of another contract are not read. */
const VERSION = "1";

/** Asked anew with every change of a reading or tap: of one water or outing the newest answer is kept. */
const NEWEST_ALONE = /^answer-\["(?:plan|next|over-day)","[^"]+"(?:,"(?:box|ties)")?/;

const storage = {
  getItem: async (key: string) => (await db()).get("answers", key).catch(() => undefined),
  setItem: async (key: string, value: string) => {
    const store = await db();
    const group = NEWEST_ALONE.exec(key)?.[0];
    if (group)
      await store.delete("answers", IDBKeyRange.bound(group, `${group}\uffff`)).catch(() => undefined);
    await store.put("answers", value, key).catch(() => undefined);
  },
  removeItem: async (key: string) => (await db()).delete("answers", key).catch(() => undefined),
  entries: async () => {
    const store = await db();
    const [keys, values] = await Promise.all([store.getAllKeys("answers"), store.getAll("answers")]);
    return keys.map((key, i): [string, string] => [key, values[i] as string]);
  },
};

export const persister = experimental_createQueryPersister<string>({
  storage,
  buster: VERSION,
  maxAge: FOURTEEN_DAYS_MS,
  prefix: "answer",
});
