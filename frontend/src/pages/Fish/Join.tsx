/** Join another angler's day by their six letters. */
import { type FormEvent, useState } from "react";
import { useLocation } from "wouter";
import { ApiError } from "../../api/client";
import { JoinBody_code_longest } from "../../api/generated/limits";
import { Failed } from "../../components/states";
import { save } from "../../lib/store";
import { Button, Field, TextBox } from "../../ui/controls";
import { useDone } from "../../ui/UndoBar";
import { words } from "./strings";
import { useJoin } from "./useTogether";

export default function Join({ code = "" }: { code?: string }) {
  const [typed, setTyped] = useState(code);
  const join = useJoin();
  const done = useDone();
  const [, go] = useLocation();
  const problems = join.error instanceof ApiError ? join.error.problems : [];
  const wrong = problems.find((one) => one.path === "code");
  const send = (event: FormEvent) => {
    event.preventDefault();
    join.mutate(typed, {
      onSuccess: (told) => {
        save("water", told.water_id);
        done({ text: words.joinedWith(told.name) });
        go(`/fish/${told.outing_id}?w=${told.water_id}`);
      },
    });
  };
  return (
    <form onSubmit={send} className="w-full max-w-xl border-t border-rule pt-3 text-left" data-testid="join">
      <h2 className="text-lg">{words.joinTitle}</h2>
      <Field label={words.joinCode} hint={words.joinAbout} problem={wrong} className="max-w-xs">
        {(p) => (
          <TextBox
            {...p}
            value={typed}
            autoComplete="off"
            autoCapitalize="characters"
            spellCheck={false}
            maxLength={JoinBody_code_longest}
            onChange={(event) => setTyped(event.target.value)}
            className="text-xl tracking-[0.15em] uppercase"
          />
        )}
      </Field>
      <Button type="submit" className="mt-2 min-h-12" disabled={join.isPending || typed.trim() === ""}>
        {words.join}
      </Button>
      {join.isError && !wrong && <Failed error={join.error} />}
    </form>
  );
}
