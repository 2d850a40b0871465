/** Entries the server refused: seen, sent again, or dropped. */
import { useReader } from "../lib/session";
import { dayAndClock } from "../lib/time";
import { type DepthUnit, depthText, fishText } from "../lib/units";
import type { Entry, Outbox } from "../offline/outbox";
import { Button } from "../ui/controls";
import { Sheet } from "../ui/Sheet";
import { words } from "./refusedStrings";

interface Props {
  box: Outbox;
  refused: Entry[];
  onClose: () => void;
}

const HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** A value of the log as it is read on its pages: its name says what it is. */
function told(unit: DepthUnit, name: string, value: unknown): string {
  if (value === null || value === undefined || value === "") return words.nothing;
  if (Array.isArray(value)) return value.join(", ") || words.nothing;
  if (typeof value === "string" && name.endsWith("_at")) return dayAndClock(value, HERE);
  if (typeof value === "number" && name === "length_m") return fishText(unit, value);
  if (typeof value === "number" && name.endsWith("_m")) return depthText(unit, value);
  if (typeof value === "number" && name.endsWith("_s")) return `${value} s`;
  if (typeof value === "boolean") return value ? words.yes : words.no;
  return String(value);
}

/** What was changed elsewhere and here, field by field. */
function Differences({ entry, kept }: { entry: Entry; kept: Record<string, unknown> }) {
  const unit = useReader().settings.depth_unit;
  if (kept.deleted_at) return <p>{words.deletedThere}</p>;
  const mine: Record<string, unknown> = { ...entry.write.body };
  const rows = Object.keys(mine)
    .filter((name) => name in kept && !name.endsWith("_id"))
    .map((name) => ({ name, here: told(unit, name, mine[name]), there: told(unit, name, kept[name]) }))
    .filter(({ here, there }) => here !== there);
  return (
    <ul className="my-1">
      {rows.map(({ name, here, there }) => (
        <li key={name}>{words.differs(words.fields[name] ?? name, here, there)}</li>
      ))}
    </ul>
  );
}

export default function Refused({ box, refused, onClose }: Props) {
  return (
    <Sheet onClose={onClose} title={words.refusedTitle}>
      <ul className="space-y-3">
        {refused.map((entry) => (
          <li key={entry.key}>
            <p className="font-semibold">{entry.what}</p>
            <p className="text-warm">{entry.refused?.map((p) => p.message).join(" ")}</p>
            {entry.kept && <Differences entry={entry} kept={entry.kept} />}
            <div className="mt-1 flex flex-wrap gap-2">
              <Button onClick={() => box.retry(entry.key)}>
                {entry.kept ? words.keepMine : words.retry}
              </Button>
              <Button look="danger" onClick={() => box.discard(entry.key)}>
                {entry.kept ? words.keepTheirs : words.discard}
              </Button>
            </div>
          </li>
        ))}
      </ul>
    </Sheet>
  );
}
