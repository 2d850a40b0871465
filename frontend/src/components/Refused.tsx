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

export default function Refused({ box, refused, onClose }: Props) {
  return (
    <Sheet onClose={onClose} title={words.refusedTitle}>
      <ul className="space-y-3">
        {refused.map((entry) => (
          <li key={entry.key}>
            <p className="font-semibold">{entry.what}</p>
            <p className="text-warm">{entry.refused?.map((p) => p.message).join(" ")}</p>
            <Button onClick={() => box.retry(entry.key)}>{words.retry}</Button>{" "}
            <Button look="danger" onClick={() => box.discard(entry.key)}>
              {words.discard}
            </Button>
          </li>
        ))}
      </ul>
    </Sheet>
  );
}
