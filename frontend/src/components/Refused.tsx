/** Entries the server refused: seen, sent again, or dropped. */
import type { Entry, Outbox } from "../offline/outbox";
import { Button } from "../ui/controls";
import { Sheet } from "../ui/Sheet";
import { words } from "./strings";

interface Props {
  box: Outbox;
  refused: Entry[];
  onClose: () => void;
}

/** A value as it stands in the log, short. */
function told(value: unknown): string {
  if (value === null || value === undefined || value === "") return words.nothing;
  if (Array.isArray(value)) return value.join(", ") || words.nothing;
  return String(value);
}

/** What was changed elsewhere and here, field by field. */
function Differences({ entry, kept }: { entry: Entry; kept: Record<string, unknown> }) {
  if (kept.deleted_at) return <p>{words.deletedThere}</p>;
  const mine: Record<string, unknown> = { ...entry.write.body };
  const fields = Object.keys(mine).filter((name) => name in kept && told(kept[name]) !== told(mine[name]));
  return (
    <ul className="my-1">
      {fields.map((name) => (
        <li key={name}>{words.differs(name.replaceAll("_", " "), told(mine[name]), told(kept[name]))}</li>
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
            <Button onClick={() => box.retry(entry.key)}>{entry.kept ? words.keepMine : words.retry}</Button>{" "}
            <Button look="danger" onClick={() => box.discard(entry.key)}>
              {entry.kept ? words.keepTheirs : words.discard}
            </Button>
          </li>
        ))}
      </ul>
    </Sheet>
  );
}
