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
  refused?: Problem[];
}

type Listener = () => void;
const NO_ENTRIES: Entry[] = [];

function send(write: Write): Promise<unknown> {
  const outing_id = write.outing;
  switch (write.kind) {
    case "outing": {
      const params = { path: { outing_id } };
      return write.body
        ? need(api.PUT("/api/outings/{outing_id}", { params, body: write.body }))
        : need(api.DELETE("/api/outings/{outing_id}", { params }));
    }
    case "spell": {
      const params = { path: { outing_id, spell_id: write.id } };
      return write.body
        ? need(api.PUT("/api/outings/{outing_id}/spells/{spell_id}", { params, body: write.body }))
        : need(api.DELETE("/api/outings/{outing_id}/spells/{spell_id}", { params }));
    }
    case "event": {
      const params = { path: { outing_id, event_id: write.id } };
      return write.body
        ? need(api.PUT("/api/outings/{outing_id}/events/{event_id}", { params, body: write.body }))
        : need(api.DELETE("/api/outings/{outing_id}/events/{event_id}", { params }));
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
  onSent: (write: Write) => void = () => undefined;

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

  add(what: string, write: Write): void {
    this.set((entries) => [...entries, { key: crypto.randomUUID(), what, write }]);
    void this.flush();
  }

  discard(key: string): void {
    this.set((entries) => entries.filter((entry) => entry.key !== key));
  }

  retry(key: string): void {
    this.set((entries) =>
      entries.map((entry) => (entry.key === key ? { ...entry, refused: undefined } : entry)),
    );
    void this.flush();
  }

  async flush(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    try {
      for (let next = this.waiting[0]; next; next = this.waiting[0]) {
        const entry = next;
        try {
          await send(entry.write);
          this.onSent(entry.write);
          this.discard(entry.key);
        } catch (error) {
          const refused = error instanceof ApiError && [404, 409, 422].includes(error.status);
          if (!refused) return; // No signal, signed out or a server in trouble: keep, and try again later.
          this.set((entries) =>
            entries.map((e) => (e.key === entry.key ? { ...e, refused: error.problems } : e)),
          );
        }
      }
    } finally {
      this.sending = false;
    }
  }
}
