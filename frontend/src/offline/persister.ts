/** Keeps answers in the device's store and finds them again; fetched beside the page. */
import { experimental_createQueryPersister } from "@tanstack/query-persist-client-core";
import { db } from "./db";
import { groupOf, namedBefore } from "./named";

const FOURTEEN_DAYS_MS = 14 * 24 * 3_600_000;
/** Answers of another contract are not read. */
const VERSION = "1";
const PREFIX = "answer-";

const storage = {
  getItem: async (key: string) => {
    const store = await db();
    const found = await store.get("answers", key).catch(() => undefined);
    const before = found === undefined ? namedBefore(key.slice(PREFIX.length)) : null;
    return before === null ? found : store.get("answers", PREFIX + before).catch(() => undefined);
  },
  setItem: async (key: string, value: string) => {
    const store = await db();
    const group = groupOf(key.slice(PREFIX.length));
    if (group !== null) {
      const older = (await store.getAllKeys("answers")).filter(
        (one) => one !== key && groupOf(one.slice(PREFIX.length)) === group,
      );
      await Promise.all(older.map((one) => store.delete("answers", one))).catch(() => undefined);
    }
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
