/** Devices that are signed in, a new password, and the way out with everything. */
import { type FormEvent, useState } from "react";
import { Link } from "wouter";
import { ApiError } from "../../api/client";
import { Failed, Loading } from "../../components/states";
import { useReader, useSession } from "../../lib/session";
import { dayAndClock } from "../../lib/time";
import { Button, Field, TextBox } from "../../ui/controls";
import { useDone } from "../../ui/UndoBar";
import { words } from "./strings";
import { useChangePassword, useDevices, useEnd, useSetMail } from "./useAccount";

const HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;

function problemAt(error: unknown, path: string) {
  return error instanceof ApiError ? error.problems.find((p) => p.path === path) : undefined;
}

/** What kind of device a browser says it runs on: what stands in its first brackets. */
function deviceOf(says: string): string {
  return /\(([^)]*)\)/.exec(says)?.[1] ?? says;
}

/** A fault that belongs to no field: throttled, offline. */
function Rest({ error, fields }: { error: unknown; fields: string[] }) {
  const atField = error instanceof ApiError && error.problems.every((p) => fields.includes(p.path));
  return error && !atField ? <Failed error={error as Error} /> : null;
}

interface SecretProps {
  label: string;
  hint?: string;
  problem?: ReturnType<typeof problemAt>;
  value: string;
  onChange: (value: string) => void;
  fresh?: boolean;
}

function Secret({ label, hint, problem, value, onChange, fresh = false }: SecretProps) {
  return (
    <Field label={label} hint={hint} problem={problem}>
      {(p) => (
        <TextBox
          {...p}
          type="password"
          autoComplete={fresh ? "new-password" : "current-password"}
          value={value}
          onChange={(e) => onChange(e.target.value)}
        />
      )}
    </Field>
  );
}

function Devices() {
  const devices = useDevices();
  const out = useEnd("everywhere");
  if (devices.isPending) return <Loading what={words.opening} />;
  if (devices.isLoadingError) return <Failed error={devices.error} again={() => void devices.refetch()} />;
  return (
    <section>
      <h2>{words.devices}</h2>
      <ul className="corded my-2">
        {devices.data.map((one) => (
          <li key={one.signed_in_at} className="knot py-1 leading-tight">
            <span className="break-words">{deviceOf(one.says) || words.unknown}</span>
            <span className="block text-soft">
              {words.since(dayAndClock(one.signed_in_at, HERE))}
              {one.this && <b className="text-ink">, {words.this}</b>}
            </span>
          </li>
        ))}
      </ul>
      <p className="mb-2 text-soft">{words.everywhereAbout}</p>
      <Button onClick={() => out.mutate()} disabled={out.isPending}>
        {words.everywhere}
      </Button>
      <Rest error={out.error} fields={[]} />
    </section>
  );
}

function NewPassword() {
  const [old, setOld] = useState("");
  const [password, setPassword] = useState("");
  const change = useChangePassword();
  const done = useDone();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    change.mutate(
      { old, password },
      {
        onSuccess: () => {
          setOld("");
          setPassword("");
          done({ text: words.changed });
        },
      },
    );
  };
  return (
    <form onSubmit={submit} className="space-y-3" noValidate>
      <h2>{words.password}</h2>
      <Secret label={words.old} value={old} onChange={setOld} problem={problemAt(change.error, "old")} />
      <Secret
        label={words.fresh}
        hint={words.freshHint}
        value={password}
        onChange={setPassword}
        problem={problemAt(change.error, "password")}
        fresh
      />
      <Rest error={change.error} fields={["old", "password"]} />
      <Button type="submit" look="main" disabled={change.isPending || !old || !password}>
        {words.change}
      </Button>
    </form>
  );
}

/** Where a code goes if the password is forgotten; only where this server sends mail. */
function Mail() {
  const session = useSession().data;
  const [mail, setMail] = useState(session?.mail ?? "");
  const [password, setPassword] = useState("");
  const keep = useSetMail();
  const done = useDone();
  if (!session?.mails) return null;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    keep.mutate(
      { mail, password },
      {
        onSuccess: () => {
          setPassword("");
          done({ text: words.mailKept });
        },
      },
    );
  };
  return (
    <form onSubmit={submit} className="space-y-3" noValidate>
      <h2>{words.mailTitle}</h2>
      <Field label={words.mail} hint={words.mailHint} problem={problemAt(keep.error, "mail")}>
        {(p) => (
          <TextBox
            {...p}
            type="email"
            autoComplete="email"
            value={mail}
            onChange={(e) => setMail(e.target.value)}
          />
        )}
      </Field>
      <Secret
        label={words.proof}
        value={password}
        onChange={setPassword}
        problem={problemAt(keep.error, "password")}
      />
      <Rest error={keep.error} fields={["mail", "password"]} />
      <Button type="submit" disabled={keep.isPending || !password}>
        {words.mailKeep}
      </Button>
    </form>
  );
}

function TheEnd() {
  const [password, setPassword] = useState("");
  const end = useEnd({ password });
  return (
    <details>
      <summary className="min-h-11 cursor-pointer font-semibold">{words.gone}</summary>
      <div className="mt-2 space-y-3 border-l-4 border-warm pl-4">
        <p>{words.goneAbout}</p>
        <Secret
          label={words.proof}
          value={password}
          onChange={setPassword}
          problem={problemAt(end.error, "password")}
        />
        <Rest error={end.error} fields={["password"]} />
        <Button onClick={() => end.mutate()} disabled={end.isPending || !password}>
          {words.goneSure}
        </Button>
      </div>
    </details>
  );
}

export default function AccountPage() {
  const { name } = useReader();
  return (
    <div className="mx-auto w-full max-w-2xl space-y-8 px-4 py-5">
      <header>
        <Link to="/kit">{words.back}</Link>
        <h1>{words.title}</h1>
        <p className="text-soft">{name}</p>
      </header>
      <Devices />
      <NewPassword />
      <Mail />
      <TheEnd />
    </div>
  );
}
