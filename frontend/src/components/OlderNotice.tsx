/** Says that an older reading is in hand, and how old its temperatures are. */
import { Link } from "wouter";
import { useReading } from "../lib/reading";
import { clockText, dayAndClock, isToday } from "../lib/time";
import type { Water } from "../lib/waters";
import { words } from "./strings";

export function OlderNotice({ water }: { water: Water }) {
  const { older } = useReading();
  if (!older) return null;
  return (
    <p role="status" className="mb-4 border-l-4 border-take pl-3">
      <b>{words.mending(dayAndClock(older.taken_at, water.time_zone ?? "UTC"))}</b>{" "}
      <Link to={`?w=${water.id}`} className="inline-flex min-h-11 items-center font-semibold">
        {words.toNow}
      </Link>
    </p>
  );
}

/** "Temperatures from 09:00." where they were carried over; nothing else. */
export function ProfileAge({ water }: { water: Water }) {
  const { draft } = useReading();
  if (draft.profileAt === "") return null;
  const zone = water.time_zone ?? "UTC";
  const at = isToday(draft.profileAt, zone)
    ? clockText(draft.profileAt, zone)
    : dayAndClock(draft.profileAt, zone);
  return <span data-testid="profile-age">{words.profileFrom(at)}</span>;
}
