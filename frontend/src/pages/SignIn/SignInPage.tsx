import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { ApiError, api, need } from "../../api/client";
import { Column } from "../../column/Column";
import { useColumn } from "../../column/scale";
import { type Session, useEnter } from "../../lib/session";
import { loadForNow, saveForNow } from "../../lib/store";
import { Button, Fault, Field, TextBox } from "../../ui/controls";
import { words } from "./strings";

/** What the day is made of, each part hung on the cord. */
function Hung() {
  const scale = useColumn();
  if (scale.narrow || scale.width < 260) return null;
  return (
    <g>
      {words.hung.map((part, i) => {
        const y = scale.y(2 * i + 2);
        const x = scale.cordX;
        return (
          <g key={part}>
            <path d={`M${x + 8} ${y}c14 0 18 4 26 4`} fill="none" stroke="var(--cord)" strokeWidth="1.5" />
            <circle cx={x} cy={y} r="8" fill="var(--take)" stroke="var(--cord)" strokeWidth="2" />
            <text x={x + 42} y={y + 9} fontSize="17" fontWeight="600" fill="var(--ink)">
              {part}
            </text>
          </g>
        );
      })}
    </g>
  );
}

/** Sign in, make an account, or set a new password by a code. */
type Way = "in" | "up" | "code";
const NEXT: Record<Way, Way[]> = { in: ["up", "code"], up: ["in"], code: ["in"] };

/** What is typed here, without the password, outlives a reload. */
interface Entry {
  way: Way;
  name: string;
}

/** A code by mail, where this server sends any. */
function ByMail({ name }: { name: string }) {
  const ask = useMutation({
    mutationFn: () => need(api.POST("/api/session/mail-code", { body: { name } })),
  });
  const wrong = ask.error instanceof ApiError ? ask.error.problems[0] : undefined;
  return (
    <div>
      <Button disabled={ask.isPending || name.trim() === ""} onClick={() => ask.mutate()}>
        {words.mailCode}
      </Button>
      {ask.isSuccess && <p role="status">{words.mailSent}</p>}
      {wrong && <Fault problem={wrong} />}
    </div>
  );
}

interface Props {
  demo: boolean;
  signUp: Session["sign_up"];
  mails: boolean;
}

export default function SignInPage({ demo, signUp, mails }: Props) {
  const [{ way, name }, setEntry] = useState(() => loadForNow<Entry>("entry", { way: "in", name: "" }));
  const keep = (part: Partial<Entry>) => {
    const next = { way, name, ...part };
    setEntry(next);
    saveForNow("entry", next);
  };
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const asksCode = way === "code" || (way === "up" && signUp === "invited");
  const enter = useEnter();
  const problems = enter.error instanceof ApiError ? enter.error.problems : [];
  const at = (path: string) => problems.find((p) => p.path === path);
  const rest = problems.filter((p) => !["name", "password", ...(asksCode ? ["code"] : [])].includes(p.path));
  const submit = (event: FormEvent) => {
    event.preventDefault();
    enter.mutate({ way, name, password, code }, { onSuccess: () => saveForNow("entry", null) });
  };
  return (
    <main className="grid min-h-dvh grid-cols-[6rem_minmax(0,1fr)] wide:grid-cols-[minmax(12rem,30vw)_minmax(0,1fr)]">
      <Column
        bedM={10}
        unit="m"
        ripple="ripple"
        summary={words.column}
        className="h-full border-r-2 border-ink"
      >
        <Hung />
      </Column>
      <div className="max-w-xl self-center px-5 py-8 wide:px-14">
        <p className="mb-3 flex items-center gap-2 text-lg font-bold">
          <img src="/mark.svg" alt="" className="size-8" /> Still Thread
        </p>
        <h1 className="mb-3 text-[2rem]">{words.title}</h1>
        <p className="mb-6 text-soft">{words.about}</p>
        {demo && (
          <div className="mb-7">
            <div className="flex flex-wrap gap-2">
              <Button look="main" onClick={() => enter.mutate({ way: "demo", which: "metric" })}>
                {words.demo}
              </Button>
              <Button onClick={() => enter.mutate({ way: "demo", which: "feet" })}>{words.demoFeet}</Button>
            </div>
            <p className="mt-2 text-soft">{words.demoAbout}</p>
          </div>
        )}
        <form onSubmit={submit} className="space-y-3" noValidate>
          <h2>{demo ? words.or : words.signIn}</h2>
          <Field label={words.name} hint={way === "up" ? words.nameHint : undefined} problem={at("name")}>
            {(p) => (
              <TextBox
                {...p}
                autoComplete="username"
                value={name}
                onChange={(e) => keep({ name: e.target.value })}
              />
            )}
          </Field>
          {way === "code" && mails && <ByMail name={name} />}
          {asksCode && (
            <Field
              label={words.code}
              hint={way === "up" ? words.inviteHint : mails ? words.codeMailHint : words.codeHint}
              problem={at("code")}
            >
              {(p) => (
                <TextBox
                  {...p}
                  autoComplete="one-time-code"
                  value={code}
                  onChange={(e) => setCode(e.target.value)}
                />
              )}
            </Field>
          )}
          <Field
            label={way === "code" ? words.newPassword : words.password}
            hint={way === "in" ? undefined : words.passwordHint}
            problem={at("password")}
          >
            {(p) => (
              <TextBox
                {...p}
                type="password"
                autoComplete={way === "in" ? "current-password" : "new-password"}
                value={password}
                onChange={(e) => setPassword(e.target.value)}
              />
            )}
          </Field>
          {rest.map((p) => (
            <Fault key={p.code} problem={p} />
          ))}
          {enter.error && problems.length === 0 && (
            <Fault
              problem={{
                code: "offline",
                path: "",
                message: "No answer from the server.",
                accepted: "",
                hint: "Try again.",
              }}
            />
          )}
          <div className="flex flex-wrap gap-2">
            <Button type="submit" look={demo ? "plain" : "main"} disabled={enter.isPending}>
              {words.ways[way].done}
            </Button>
            {NEXT[way]
              .filter((next) => next !== "up" || signUp !== "closed")
              .map((next) => (
                <Button key={next} look="quiet" onClick={() => keep({ way: next })}>
                  {words.ways[next].go}
                </Button>
              ))}
          </div>
        </form>
      </div>
    </main>
  );
}
