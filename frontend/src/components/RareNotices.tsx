/** Notices that are seldom needed: signed out, a newer version, an address that cannot be kept; pictures on their way. */
import { type FormEvent, useState } from "react";
import { ApiError } from "../api/client";
import { useRunning } from "../lib/running";
import { useReader, useReturn } from "../lib/session";
import { load, save } from "../lib/store";
import { useOutbox } from "../offline/useOuting";
import { fresh } from "../offline/worker";
import { Button, Fault, Field, TextBox } from "../ui/controls";
import { words } from "./rareStrings";

/** The session has run out: the page stays, and what waits goes once the password is typed. */
export function Return() {
  const { name } = useReader();
  const { box } = useOutbox();
  const back = useReturn(name);
  const [password, setPassword] = useState("");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    back.mutate(password, { onSuccess: () => box.resume() });
  };
  const problems = back.error instanceof ApiError ? back.error.problems : [];
  return (
    <form onSubmit={submit} className="border-b-2 border-warm px-4 py-2" data-testid="return" noValidate>
      <p className="font-semibold">{words.expired(name)}</p>
      <div className="flex items-end gap-2">
        <Field label={words.password} className="w-60">
          {(p) => (
            <TextBox
              {...p}
              type="password"
              autoComplete="current-password"
              value={password}
              onChange={(event) => setPassword(event.target.value)}
            />
          )}
        </Field>
        <Button type="submit" disabled={back.isPending || password === ""}>
          {words.signIn}
        </Button>
      </div>
      {problems.map((one) => (
        <Fault key={one.code} problem={one} />
      ))}
    </form>
  );
}

/** A newer version is offered where no outing is on the go; never in its midst. */
export function NewVersion() {
  const { running } = useRunning();
  if (running) return null;
  return (
    <p className="flex flex-wrap items-center gap-3 border-b-2 border-water px-4 py-1">
      {words.newVersion}
      <Button look="quiet" onClick={fresh.take}>
        {words.takeVersion}
      </Button>
    </p>
  );
}

/** Said once, plainly: this address cannot keep the page for the dark. */
export function NotKept() {
  const [told, setTold] = useState(() => load("told-not-kept", false));
  if (told) return null;
  return (
    <p className="flex flex-wrap items-center gap-3 border-b-2 border-warm px-4 py-1" data-testid="not-kept">
      {words.notKept}
      <Button
        look="quiet"
        onClick={() => {
          save("told-not-kept", true);
          setTold(true);
        }}
      >
        {words.understood}
      </Button>
    </p>
  );
}

export { default as OnTheirWay } from "../photos/OnTheirWay";
