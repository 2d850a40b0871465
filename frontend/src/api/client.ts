import createClient from "openapi-fetch";
import { noteReach } from "../lib/reach";
import type { components, paths } from "./generated/schema";

export type Schemas = components["schemas"];
export type Problem = Schemas["ProblemOut"];

/** A refused or failed request: its faults, each with the path of the field it belongs to. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly problems: Problem[],
    /** The row as the server has it, where an edit was made on an older one. */
    readonly kept?: Record<string, unknown>,
  ) {
    super(problems.map((p) => p.message).join(" "));
  }
}

/** No answer at all: the signal is gone, or the server is. */
export class OfflineError extends Error {}

function cookie(name: string): string {
  const found = document.cookie.split("; ").find((part) => part.startsWith(`${name}=`));
  return found ? decodeURIComponent(found.slice(name.length + 1)) : "";
}

/** Which page asks: of two questions of one kind from one page the server answers the later alone. */
const PAGE = `${Date.now().toString(36)}-${Math.random().toString(36).slice(2)}`;
let asked = 0;

/** What a proxy says of a server behind it that is down; the server's own answers are JSON. */
const GATEWAY = [502, 503, 504];

/** Told to the page when the server no longer knows this device. */
export const SIGNED_OUT = "signed-out";

export const api = createClient<paths>({ baseUrl: window.location.origin, credentials: "same-origin" });

api.use({
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", cookie("csrftoken"));
    asked += 1;
    request.headers.set("X-Page", `${PAGE}.${asked}`);
    return request;
  },
  async onResponse({ response }) {
    const down = GATEWAY.includes(response.status) && !response.headers.get("Content-Type")?.includes("json");
    noteReach(!down);
    if (down) throw new OfflineError("No answer from the server.");
    if (response.status === 401) window.dispatchEvent(new Event(SIGNED_OUT));
    if (response.ok) return;
    const told: Partial<Schemas["StaleOut"]> | null = await response.json().catch(() => null);
    throw new ApiError(response.status, problemsOf(told), told?.kept);
  },
  onError({ error }) {
    // Taken back by the page itself: that is no lack of signal.
    if (error instanceof DOMException && error.name === "AbortError") return undefined;
    noteReach(false);
    return new OfflineError("No answer from the server.");
  },
});

function problemsOf(told: { errors?: Problem[] } | null): Problem[] {
  const listed = told?.errors;
  if (Array.isArray(listed) && listed.length > 0) return listed;
  const message = "Something went wrong on our side. What you typed is kept here.";
  return [{ code: "server_error", path: "", message, accepted: "", hint: "Try again in a moment." }];
}

/** What is answered; a refused or failed request throws. */
export async function need<T>(answer: Promise<{ data?: T }>): Promise<T> {
  return (await answer).data as T;
}
