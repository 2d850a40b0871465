/** What is in hand, or was, where that is not simply today's reading. */
import { Link } from "wouter";
import type { Schemas } from "../api/client";
import { dayAndClock } from "../lib/time";
import type { Aside } from "../lib/useDraft";
import type { Water } from "../lib/waters";
import { Button } from "../ui/controls";
import { words } from "./notTodayWords";
import { words as shell } from "./strings";

/** What was typed here on another day, or cannot be read: set aside, to be taken up again, looked at, or dropped. */
export function AsideNotice({ aside }: { aside: Aside }) {
  return (
    <section aria-label={words.aside} className="mb-4 border-l-4 border-rule pl-3">
      <p>{aside.takeUp ? words.asideOld(aside.at) : words.asideUnreadable}</p>
      <div className="flex flex-wrap items-center gap-2">
        {aside.takeUp && <Button onClick={aside.takeUp}>{words.asideTakeUp}</Button>}
        <Button look="quiet" onClick={aside.drop}>
          {words.discard}
        </Button>
        <details className="w-full">
          <summary className="min-h-11 cursor-pointer py-2 font-semibold">{shell.show}</summary>
          <pre className="max-h-60 overflow-auto text-[0.85rem] whitespace-pre-wrap">{aside.text}</pre>
        </details>
      </div>
    </section>
  );
}

/** An older reading is in hand. */
export function OlderNotice({ water, older }: { water: Water; older: Schemas["ReadingOut"] }) {
  return (
    <p role="status" className="mb-4 border-l-4 border-take pl-3">
      <b>{words.mending(dayAndClock(older.taken_at, water.time_zone ?? "UTC"))}</b>{" "}
      <Link to={`?w=${water.id}`} className="inline-flex min-h-11 items-center font-semibold">
        {words.toNow}
      </Link>
    </p>
  );
}
