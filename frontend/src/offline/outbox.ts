/** Writes wait here until the server has them: kept on the device, sent in order, safe to send twice. */
import { ApiError, api, need, type Problem, type Schemas } from "../api/client";
import { load, save } from "../lib/store";

export type Write =
  | { kind: "outing"; outing: string; id: string; body: Schemas["OutingBody"] | null }
  | { kind: "spell"; outing: string; id: string; body: Schemas["SpellBody"] | null }
  | { kind: "event"; outing: string; id: string; body: Schemas["EventBody"] | null };

export interface Entry {
  key: string;
  /** What it is, for the angler. */
  what: string;
  write: Write;
  /** The revision it was made on, as far as this device knows; the server refuses it where the row has moved on. */
  on?: number;
  refused?: Problem[];
  /** What the server has instead, where the row was changed elsewhere. */
  kept?: Record<string, unknown>;
}

type Row = { revision: number };
type Listener = () => void;
const NO_ENTRIES: Entry[] = [];

function send({ write, on }: Entry): Promise<Row | undefined> {
  const outing_id = write.outing;
  const headers = on === undefined ? undefined : { "If-Match": `"${on}"` };
  switch (write.kind) {
    case "outing": {
      const params = { path: { outing_id } };
      return write.body
        ? need(api.PUT("/api/outings/{outing_id}", { params, headers, body: write.body }))
        : need(api.DELETE("/api/outings/{outing_id}", { params, headers }));
    }
    case "spell": {
      const params = { path: { outing_id, spell_id: write.id } };
      return write.body
        ? need(api.PUT("/api/outings/{outing_id}/spells/{spell_id}", { params, headers, body: write.body }))
        : need(api.DELETE("/api/outings/{outing_id}/spells/{spell_id}", { params, headers }));
    }
    case "event": {
      const params = { path: { outing_id, event_id: write.id } };
      return write.body
        ? need(api.PUT("/api/outings/{outing_id}/events/{event_id}", { params, headers, body: write.body }))
        : need(api.DELETE("/api/outings/{outing_id}/events/{event_id}", { params, headers }));
    }
  }
}

/** One angler's queue. A refused entry stays to be seen and does not hold up the rest. */
export class Outbox {
  private entries: Entry[];
  private listeners = new Set<Listener>();
  private sending = false;
  /** False when the device refuses to store: then memory is all there is. */
  private kept = true;
  onSent: (write: Write, revision?: number) => void = () => undefined;

  constructor(private readonly owner: string) {
    this.entries = load<Entry[]>(this.storeKey, []);
    window.addEventListener("online", () => void this.flush());
    window.addEventListener("storage", (event) => {
      if (event.key !== this.storeKey) return;
      this.entries = load<Entry[]>(this.storeKey, []);
      for (const listener of this.listeners) listener();
    });
    setInterval(() => this.waiting.length > 0 && void this.flush(), 15_000);
    void this.flush();
  }

  private get storeKey(): string {
    return `outbox:${this.owner}`;
  }

  private get waiting(): Entry[] {
    return this.entries.filter((entry) => !entry.refused);
  }

  snapshot = (): Entry[] => (this.entries.length > 0 ? this.entries : NO_ENTRIES);

  subscribe = (listener: Listener): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Change the queue from what the device holds, so that two open pages do not lose each other's entries. */
  private set(change: (entries: Entry[]) => Entry[]): void {
    this.entries = change(this.kept ? load<Entry[]>(this.storeKey, []) : this.entries);
    this.kept = save(this.storeKey, this.entries);
    for (const listener of this.listeners) listener();
  }

  add(what: string, write: Write, on?: number): void {
    this.set((entries) => [...entries, { key: crypto.randomUUID(), what, write, on }]);
    void this.flush();
  }

  discard(key: string): void {
    this.set((entries) => entries.filter((entry) => entry.key !== key));
  }

  /** Send a refused entry again; one that met a newer version is then laid over it. */
  retry(key: string): void {
    this.set((entries) =>
      entries.map((entry) =>
        entry.key === key
          ? { ...entry, refused: undefined, kept: undefined, on: entry.kept ? undefined : entry.on }
          : entry,
      ),
    );
    void this.flush();
  }

  /** An entry has arrived: what waits behind it for the same row was made on what it has become; on nothing, if it went. */
  private sent(entry: Entry, revision?: number): void {
    const follows = (e: Entry) => e.write.id === entry.write.id && e.on === entry.on;
    this.set((entries) =>
      entries.filter((e) => e.key !== entry.key).map((e) => (follows(e) ? { ...e, on: revision } : e)),
    );
  }

  async flush(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    try {
      for (let next = this.waiting[0]; next; next = this.waiting[0]) {
        const entry = next;
        try {
          const row = await send(entry);
          this.onSent(entry.write, row?.revision);
          this.sent(entry, row?.revision);
        } catch (error) {
          const refused = error instanceof ApiError && [404, 409, 422].includes(error.status);
          if (!refused) return; // No signal, signed out or a server in trouble: keep, and try again later.
          this.set((entries) =>
            entries.map((e) =>
              e.key === entry.key ? { ...e, refused: error.problems, kept: error.kept } : e,
            ),
          );
        }
      }
    } finally {
      this.sending = false;
    }
  }
}
