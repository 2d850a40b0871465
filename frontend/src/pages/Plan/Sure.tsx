/** What speaks against starting is said before the start, and one is asked. */
import { Button } from "../../ui/controls";
import { Sheet } from "../../ui/Sheet";
import { words } from "./strings";

interface Props {
  doubts: string[];
  /** Plan for now first, where the plan is for another hour. */
  onNow: (() => void) | null;
  onGo: () => void;
  onClose: () => void;
}

export default function Sure({ doubts, onNow, onGo, onClose }: Props) {
  const then = (act: () => void) => () => {
    onClose();
    act();
  };
  return (
    <Sheet onClose={onClose} title={words.sureTitle}>
      <ul className="mb-4 space-y-2">
        {doubts.map((one) => (
          <li key={one} className="border-l-4 border-warm pl-2 font-bold">
            {one}
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-2">
        <Button look="main" onClick={onClose}>
          {words.sureStay}
        </Button>
        {onNow && <Button onClick={then(onNow)}>{words.sureNow}</Button>}
        <Button look="danger" onClick={then(onGo)}>
          {words.sureGo}
        </Button>
      </div>
    </Sheet>
  );
}
