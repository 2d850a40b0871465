/** Clock and calendar of a water, in its own time zone. */
import type { Problem } from "../api/client";

/** A reading of "now" is of these minutes. */
export const TEN_MINUTES_MS = 600_000;

function parts(instant: Date, zone: string): Record<string, string> {
  const format = new Intl.DateTimeFormat("en-GB", {
    timeZone: zone,
    year: "numeric",
    month: "2-digit",
    day: "2-digit",
    hour: "2-digit",
    minute: "2-digit",
    hourCycle: "h23",
  });
  return Object.fromEntries(format.formatToParts(instant).map((part) => [part.type, part.value]));
}

/** `YYYY-MM-DDTHH:MM` on the water's clock, as a date-and-time box wants it. */
export function boxTime(instant: Date, zone: string): string {
  const p = parts(instant, zone);
  return `${p.year}-${p.month}-${p.day}T${p.hour}:${p.minute}`;
}

const FIRST_YEAR = 1970;
const YEAR_MS = 366 * 86_400_000;

/** The instant a box value means on the water's clock; null if it is no time, or none from 1970 to a year ahead. */
export function fromBoxTime(text: string, zone: string): Date | null {
  if (!/^\d{4}-\d\d-\d\dT\d\d:\d\d$/.test(text) || Number(text.slice(0, 4)) < FIRST_YEAR) return null;
  const found = instantOf(text, zone);
  return found && found.getTime() <= Date.now() + YEAR_MS ? found : null;
}

/** What is wrong with a date box, for its field. */
export function notADay(path: string): Problem {
  const accepted = "a day and an hour, from 1970 to a year from now";
  return { code: "no_day", path, message: "This is no day to go by.", accepted, hint: "" };
}

function instantOf(text: string, zone: string): Date | null {
  const guess = new Date(`${text}:00Z`);
  if (Number.isNaN(guess.getTime())) return null;
  const off = new Date(`${boxTime(guess, zone)}:00Z`).getTime() - guess.getTime();
  const first = new Date(guess.getTime() - off);
  const again = new Date(`${boxTime(first, zone)}:00Z`).getTime() - first.getTime();
  return new Date(guess.getTime() - again);
}

export function dayText(iso: string, zone: string): string {
  return new Intl.DateTimeFormat("en-GB", {
    timeZone: zone,
    weekday: "short",
    day: "numeric",
    month: "short",
    year: "numeric",
  }).format(new Date(iso));
}

/** "Thu 26 Nov, 09:30" on the water's clock. */
export function dayAndClock(iso: string, zone: string): string {
  const day = new Intl.DateTimeFormat("en-GB", {
    timeZone: zone,
    weekday: "short",
    day: "numeric",
    month: "short",
  });
  return `${day.format(new Date(iso)).replace(",", "")}, ${clockText(iso, zone)}`;
}

export function clockText(iso: string, zone: string): string {
  return new Intl.DateTimeFormat("en-GB", {
    timeZone: zone,
    hour: "2-digit",
    minute: "2-digit",
    hourCycle: "h23",
  }).format(new Date(iso));
}

/** True for an instant of today on the water's clock. */
export function isToday(iso: string, zone: string): boolean {
  return boxTime(new Date(iso), zone).slice(0, 10) === boxTime(new Date(), zone).slice(0, 10);
}

export function hoursText(hours: number): string {
  const minutes = Math.round(hours * 60);
  return minutes < 60
    ? `${minutes} min`
    : `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, "0")}`;
}

/** Minutes and seconds on the countdown clock. */
export function secondsText(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}
