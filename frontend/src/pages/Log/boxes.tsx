/** What mending the log is made of: times on the water's clock, save and cancel. */
import { useState } from "react";
import type { Problem } from "../../api/client";
import { boxTime, fromBoxTime, notADay } from "../../lib/time";
import { Button, Field, TextBox } from "../../ui/controls";
import { words } from "./strings";

/** A date-and-time box on the water's clock: its text as it is typed, and the instant it means; empty where that may be. */
export function useTimeBox(start: string | null | undefined, zone: string, path: string, mayBeEmpty = false) {
  const [text, setText] = useState(start ? boxTime(new Date(start), zone) : "");
  const at = fromBoxTime(text, zone);
  const bad = at === null && !(mayBeEmpty && text === "");
  // Untouched, it stays to the second what it was.
  const same = start && text === boxTime(new Date(start), zone);
  const iso = same ? start : (at?.toISOString() ?? null);
  return { text, setText, iso, bad, problem: bad ? notADay(path) : undefined };
}

type TimeBox = ReturnType<typeof useTimeBox>;

export function Times({ from, to, problem }: { from: TimeBox; to: TimeBox; problem?: Problem }) {
  return (
    <div className="grid grid-cols-1 gap-3 min-[26rem]:grid-cols-2">
      <Field label={words.started} problem={from.problem}>
        {(p) => (
          <TextBox
            {...p}
            type="datetime-local"
            value={from.text}
            onChange={(e) => from.setText(e.target.value)}
          />
        )}
      </Field>
      <Field label={words.ended} problem={to.problem ?? problem}>
        {(p) => (
          <TextBox
            {...p}
            type="datetime-local"
            value={to.text}
            onChange={(e) => to.setText(e.target.value)}
          />
        )}
      </Field>
    </div>
  );
}

export interface FormProps<T> {
  zone: string;
  onSave: (body: T) => void;
  onClose: () => void;
}

export function Foot({ onSave, onClose, bad }: { onSave: () => void; onClose: () => void; bad: boolean }) {
  return (
    <div className="flex gap-2">
      <Button look="main" disabled={bad} onClick={onSave}>
        {words.save}
      </Button>
      <Button onClick={onClose}>{words.cancel}</Button>
    </div>
  );
}
