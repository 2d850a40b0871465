/** Who is signed in, and in which units and words they read. */
import { type QueryClient, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, type ReactNode, useContext, useMemo } from "react";
import { api, need, OfflineError, type Schemas } from "../api/client";
import { forgetAnswers } from "../offline/db";
import { again, answered } from "./again";
import { forget, load, save } from "./store";
import { say, type Voice } from "./words";

export type Settings = Schemas["SettingsIO"];
export type Session = Schemas["SessionOut"];

/** Who was signed in here last and has not signed out: without signal, or once the session has run out, it is still them. */
const OWNER = "owner";

export type Here = Session & {
  /** The server does not know this device any more: what waits goes once the password is typed again. */
  expired?: boolean;
};

async function whoIsHere(): Promise<Here> {
  const owner = load<Session | null>(OWNER, null);
  try {
    const told = await need(api.GET("/api/session"));
    if (told.name) save(OWNER, told);
    else if (owner) return { ...owner, demo_available: told.demo_available, expired: true };
    return told;
  } catch (error) {
    if (error instanceof OfflineError && owner) return owner;
    throw error;
  }
}

export function useSession() {
  return useQuery({ queryKey: ["session"], queryFn: whoIsHere, staleTime: 60_000 });
}

/** Nothing of one account is shown to another: what the device kept goes with it. */
export async function anew(client: QueryClient, session: Session) {
  const owner = load<Session | null>(OWNER, null);
  if (owner?.name !== session.name) await forgetAnswers();
  if (session.name) save(OWNER, session);
  else forget(OWNER);
  client.removeQueries({ predicate: (query) => query.queryKey[0] !== "session" });
  answered<Here>(client, ["session"], session);
}

interface Reader {
  name: string;
  settings: Settings;
  voice: Voice;
  say: (text: string) => string;
}

const ReaderContext = createContext<Reader | null>(null);

export function ReaderProvider({ session, children }: { session: Session; children: ReactNode }) {
  const value = useMemo<Reader | null>(() => {
    if (!session.name || !session.settings) return null;
    const s = session.settings;
    const voice: Voice = {
      vocabulary: s.vocabulary,
      depth: s.depth_unit,
      temperature: s.temperature_unit,
      wind: s.wind_unit,
    };
    return { name: session.name, settings: s, voice, say: (text) => say(voice, text) };
  }, [session]);
  return <ReaderContext.Provider value={value}>{children}</ReaderContext.Provider>;
}

/** The same angler reading in settings that are not kept yet. */
export function ReadAs({ settings, children }: { settings: Settings; children: ReactNode }) {
  const { name } = useReader();
  const session = useMemo(() => ({ name, settings }) as Session, [name, settings]);
  return <ReaderProvider session={session}>{children}</ReaderProvider>;
}

/** The signed-in angler's settings and voice. */
export function useReader(): Reader {
  const reader = useContext(ReaderContext);
  if (!reader) throw new Error("nobody is signed in here");
  return reader;
}

type Entry =
  | { way: "in" | "up" | "code"; name: string; password: string; code: string }
  | { way: "demo"; which: "metric" | "feet" };

/** Sign in, sign up, or step in as a demo angler. */
export function useEnter() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (entry: Entry) => {
      if (entry.way === "demo") return need(api.POST("/api/session/demo", { body: { which: entry.which } }));
      const { way, code, ...pair } = entry;
      if (way === "in") return need(api.POST("/api/session/sign-in", { body: pair }));
      const body = { ...pair, code };
      return way === "up"
        ? need(api.POST("/api/session/sign-up", { body }))
        : need(api.POST("/api/session/reset", { body }));
    },
    onSuccess: (session) => anew(client, session),
  });
}

/** The same angler again, after the session has run out: the page stays as it is. */
export function useReturn(name: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (password: string) => need(api.POST("/api/session/sign-in", { body: { name, password } })),
    onSuccess: (session) => {
      answered<Here>(client, ["session"], session);
      void again(client);
    },
  });
}

export function useLeave() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => need(api.POST("/api/session/sign-out")),
    onSuccess: (session) => anew(client, session),
  });
}

export function useSaveSettings() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Settings) => need(api.PUT("/api/settings", { body })),
    onSuccess: (settings) => {
      answered<Here>(client, ["session"], (old) => (old ? { ...old, settings } : old));
      void again(client, "/api/log/*");
    },
  });
}
