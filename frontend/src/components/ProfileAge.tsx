import { useBoxes } from "../lib/reading";
import { clockText, dayAndClock, isToday } from "../lib/time";
import type { Water } from "../lib/waters";
import { words } from "./strings";

/** "Temperatures from 09:00." where they were carried over; nothing else. */
export function ProfileAge({ water }: { water: Water }) {
  const { draft } = useBoxes("profileAt");
  if (draft.profileAt === "") return null;
  const zone = water.time_zone ?? "UTC";
  const at = isToday(draft.profileAt, zone)
    ? clockText(draft.profileAt, zone)
    : dayAndClock(draft.profileAt, zone);
  return <span data-testid="profile-age">{words.profileFrom(at)}</span>;
}
