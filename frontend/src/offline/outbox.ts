/** Writes wait here until the server has them: kept on the device first, sent in order and many at once, safe to send twice. */
import type { Problem, Schemas } from "../api/client";
import { whenReached } from "../lib/reach";
import { load } from "../lib/store";
import { askToPersist, db } from "./db";

export type Write =
  | { kind: "outing"; outing: string; id: string; body: Schemas["OutingBody"] | null }
  | { kind: "spell"; outing: string; id: string; body: Schemas["SpellBody"] | null }
  | { kind: "event"; outing: string; id: string; body: Schemas["EventBody"] | null }
  | { kind: "seen"; outing: string; id: string; body: Schemas["SeenBody"] | null }
  | { kind: "photo"; outing: string; id: string; body: Schemas["PhotoBody"] | null }
  | { kind: "turn"; outing: string; id: string; body: Turned }
  | { kind: "plan"; outing: string; id: string; body: Schemas["PlanBody"] };

type Turned = Omit<Schemas["TurnBody"], "reading_id">;

export interface Entry {
  key: string;
  /** What it is, for the angler. */
  what: string;
  write: Write;
  /** The revision it was made on, as far as this device knows; the server refuses it where the row has moved on. */
  on?: number;
  /** How often the server failed over it. */
  tries?: number;
  refused?: Problem[];
  /** What the server has instead, where the row was changed elsewhere. */
  kept?: Record<string, unknown>;
  /** Its place in the queue, once it is stored. */
  seq?: number;
}

/** Why nothing is sent for now. */
export type Held = "signed-out" | null;

type Listener = () => void;
const NO_ENTRIES: Entry[] = [];
export const MOST_ROWS = 200;
const AGAIN_MS = 15_000;
const SOON_MS = 1_000;

/** A write that has arrived, and the revision it made. */
export interface Sent {
  write: Write;
  revision?: number;
}

/** What the part that sends may do with the queue. */
export interface Hands {
  all: () => Entry[];
  change: (keys: Map<string, Entry | null>) => Promise<void>;
  sent: (all: Sent[]) => void;
  hold: () => void;
  /** How many rows go at once; told, it is set. */
  most: (rows?: number) => number;
}

/** One angler's queue. A refused entry stays to be seen and does not hold up the rest. */
export class Outbox {
  private entries: Entry[] = [];
  private listeners = new Set<Listener>();
  private sending = false;
  private storing: Promise<void>;
  private again = false;
  private soon?: ReturnType<typeof setTimeout>;
  private triedAt = 0;
  private most = MOST_ROWS;
  /** What revision this page's own writes last made of a row. */
  private readonly made = new Map<string, number>();
  private readonly channel: BroadcastChannel | null;
  /** True where the device would not store the last entry: then memory is all there is. */
  full = false;
  held: Held = null;
  onSent: (all: Sent[]) => void = () => undefined;

  constructor(private readonly owner: string) {
    this.channel = "BroadcastChannel" in window ? new BroadcastChannel(`outbox:${owner}`) : null;
    this.storing = this.moveOver().then(() => this.read());
    window.addEventListener("online", () => void this.flush());
    whenReached(() => this.flushSoon());
    this.channel?.addEventListener("message", () => void this.read());
    setInterval(() => this.waiting.length > 0 && void this.flush(), AGAIN_MS);
    void this.storing.then(() => this.flush());
  }

  private get waiting(): Entry[] {
    return this.entries.filter((entry) => !entry.refused);
  }

  snapshot = (): Entry[] => (this.entries.length > 0 ? this.entries : NO_ENTRIES);

  subscribe = (listener: Listener): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  private show(entries: Entry[], others = true): void {
    this.entries = entries;
    for (const listener of this.listeners) listener();
    if (others) this.channel?.postMessage("changed");
  }

  /** What an earlier version kept elsewhere moves over once. */
  private async moveOver(): Promise<void> {
    const old = load<Entry[]>(`outbox:${this.owner}`, []);
    if (old.length > 0)
      await import("./moveOver")
        .then((found) => found.moveOver(this.owner, old))
        .catch(() => {
          this.entries = old;
        });
  }

  /** Read the queue from the device: another page may have changed it. */
  private async read(): Promise<void> {
    try {
      const kept = await (await db()).getAllFromIndex("outbox", "owner", this.owner);
      const mine = this.entries.filter((entry) => entry.seq === undefined);
      this.show([...kept.map(({ owner: _owner, ...entry }) => entry), ...mine], false);
    } catch {
      // No store on this device: what was tapped here is in memory.
    }
  }

  /** One after the other, so that what is stored keeps the order of the taps. */
  private queue(act: () => Promise<void>): Promise<void> {
    this.storing = this.storing.then(act, act);
    return this.storing;
  }

  /** Resolves once the entry is stored, or the device has said that it cannot. */
  add(what: string, write: Write, on?: number): Promise<void> {
    const entry: Entry = { key: crypto.randomUUID(), what, write, on };
    return this.queue(async () => {
      try {
        entry.on = this.madeOn(entry);
        const tx = (await db()).transaction("outbox", "readwrite", { durability: "strict" });
        const seq = await tx.store.add({ ...entry, owner: this.owner });
        await tx.done;
        entry.seq = seq;
        if (this.entries.length === 0) askToPersist();
        this.full = false;
      } catch {
        this.full = true;
      }
      this.show([...this.entries, entry]);
      void this.flush();
    });
  }

  private change(keys: Map<string, Entry | null>): Promise<void> {
    return this.queue(async () => {
      try {
        const tx = (await db()).transaction("outbox", "readwrite", { durability: "strict" });
        for (const entry of this.entries) {
          const now = keys.get(entry.key);
          if (now === undefined || entry.seq === undefined) continue;
          void (now === null
            ? tx.store.delete(entry.seq)
            : tx.store.put({ ...now, seq: entry.seq, owner: this.owner }));
        }
        await tx.done;
      } catch {
        this.full = true;
      }
      this.show(
        this.entries.flatMap((entry) => {
          const now = keys.get(entry.key);
          return now === undefined ? [entry] : now === null ? [] : [{ ...now, seq: entry.seq }];
        }),
      );
    });
  }

  discard(key: string): void {
    void this.change(new Map([[key, null]]));
  }

  /** Send a refused entry again; one that met a newer version is then laid over it. */
  retry(key: string): void {
    const entry = this.entries.find((one) => one.key === key);
    if (!entry) return;
    const { refused: _refused, kept, ...rest } = entry;
    void this.change(new Map([[key, { ...rest, tries: 0, on: kept ? undefined : entry.on }]])).then(() =>
      this.flush(),
    );
  }

  /** Signed in again: what waited goes. */
  resume(): void {
    this.held = null;
    this.show(this.entries);
    void this.flush();
  }

  /** The revision a write is made on now: this page's own earlier writes have moved the row on, and it was made over them. */
  private madeOn({ on, write }: Entry): number | undefined {
    return on === undefined ? on : Math.max(on, this.made.get(write.id) ?? 0);
  }

  /** The first writes in the queue; one made on a revision that an earlier one of them changes waits for the next round. */
  private batch(): Entry[] {
    const found: Entry[] = [];
    const rows = new Set<string>();
    for (const kept of this.waiting.slice(0, this.most)) {
      const entry = { ...kept, on: this.madeOn(kept) };
      if (entry.on !== undefined && rows.has(entry.write.id)) break;
      rows.add(entry.write.id);
      found.push(entry);
    }
    return found;
  }

  /** Other questions are answered again: so may these be. Not at once where they have just failed by themselves. */
  private flushSoon(): void {
    clearTimeout(this.soon);
    const wait = Date.now() - this.triedAt < SOON_MS ? SOON_MS : 0;
    this.soon = setTimeout(() => this.waiting.length > 0 && void this.flush(), wait);
  }

  async flush(): Promise<void> {
    this.again ||= this.sending;
    await this.storing;
    if (!navigator.locks) return this.flushHere();
    // Of two pages of one angler one sends.
    await navigator.locks.request(`outbox:${this.owner}`, { ifAvailable: true }, async (lock) => {
      if (lock) await this.flushHere();
    });
  }

  private async flushHere(): Promise<void> {
    if (this.sending || this.held) return;
    this.sending = true;
    do {
      this.again = false;
      await this.sendAll().catch(() => undefined); // the part that sends cannot be fetched: later
    } while (this.again); // asked meanwhile, perhaps because the signal came back
    this.sending = false;
  }

  private async sendAll(): Promise<void> {
    if (this.waiting.length === 0) return;
    this.triedAt = Date.now();
    const { sendBatch } = await import("./sending");
    for (let batch = this.batch(); batch.length > 0; batch = this.batch())
      if (!(await sendBatch(batch, this.hands))) return;
  }

  /** What the sending part may do with the queue. */
  private readonly hands: Hands = {
    all: () => this.entries,
    change: (keys: Map<string, Entry | null>) => this.change(keys),
    sent: (all: Sent[]) => {
      for (const { write, revision } of all) if (revision !== undefined) this.made.set(write.id, revision);
      this.onSent(all);
    },
    hold: () => {
      this.held = "signed-out";
      this.show(this.entries);
    },
    most: (rows?: number) => {
      if (rows !== undefined) this.most = rows;
      return this.most;
    },
  };
}
