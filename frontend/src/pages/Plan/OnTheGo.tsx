/** The plan knows that somebody is on the water: what is fished, and the way back to the clock. */
import { Link } from "wouter";
import { useRunning } from "../../lib/running";
import { useReader } from "../../lib/session";
import { clockText } from "../../lib/time";
import type { Water } from "../../lib/waters";
import { words } from "./strings";

export function OnTheGo({ water }: { water: Water }) {
  const { running } = useRunning();
  const { say } = useReader();
  if (!running) return null;
  const { outing, title } = running;
  const since = clockText(outing.started_at, outing.time_zone);
  const text =
    outing.water_id === water.id
      ? words.fishing(say(title), since)
      : words.fishingAt(say(title), outing.water_name, since);
  return (
    <p role="status" data-testid="on-the-go" className="border-l-4 border-take pl-3">
      <b>{text}</b>{" "}
      <Link
        to={`/fish/${outing.id}?w=${outing.water_id}`}
        className="inline-flex min-h-11 items-center font-semibold"
      >
        {words.toFish}
      </Link>
    </p>
  );
}
