/** What was typed here on another day, or cannot be read: set aside, to be taken up again, looked at, or dropped. */
import { useReading } from "../lib/reading";
import { Button } from "../ui/controls";
import { words } from "./strings";

export function AsideNotice() {
  const { aside } = useReading();
  if (!aside) return null;
  return (
    <section aria-label={words.aside} className="mb-4 border-l-4 border-rule pl-3">
      <p>{aside.takeUp ? words.asideOld(aside.at) : words.asideUnreadable}</p>
      <div className="flex flex-wrap items-center gap-2">
        {aside.takeUp && <Button onClick={aside.takeUp}>{words.asideTakeUp}</Button>}
        <Button look="quiet" onClick={aside.drop}>
          {words.discard}
        </Button>
        <details className="w-full">
          <summary className="min-h-11 cursor-pointer py-2 font-semibold">{words.show}</summary>
          <pre className="max-h-60 overflow-auto text-[0.85rem] whitespace-pre-wrap">{aside.text}</pre>
        </details>
      </div>
    </section>
  );
}
