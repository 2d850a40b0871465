/** What switching a school or the aim changed, said at once and put away when seen. */
import { useReading } from "../../lib/reading";
import { useReader } from "../../lib/session";
import { Button } from "../../ui/controls";
import { more } from "./moreStrings";

export default function Changed() {
  const { plan, planning, compareWith } = useReading("plan", "planning", "compareWith");
  const { say } = useReader();
  if (!plan?.changed || planning) return null;
  const moved = plan.moved_by ?? [];
  return (
    <section aria-label={more.changed} role="status" className="border-l-4 border-water py-1 pl-3">
      <div className="flex items-start justify-between gap-3">
        <h2>{more.changed}</h2>
        <Button look="quiet" className="-mt-1" onClick={() => compareWith(null)}>
          {more.seen}
        </Button>
      </div>
      {moved.length > 0 && <p>{say(moved.join(" "))}</p>}
      {plan.changed.length === 0 ? (
        <p>{more.changedNothing}</p>
      ) : (
        <ul className="list-disc pl-4">
          {plan.changed.map((line) => (
            <li key={line}>{say(line)}</li>
          ))}
        </ul>
      )}
    </section>
  );
}
