/** Loading, empty and failed states, in words. */
import type { ReactNode } from "react";
import { ApiError, OfflineError } from "../api/client";
import { Button } from "../ui/controls";
import { words } from "./strings";

export function Loading({ what }: { what: string }) {
  return (
    <p role="status" className="p-6 text-soft">
      {what}
    </p>
  );
}

interface EmptyProps {
  title: string;
  /** The whole page: then its title is the page's heading. */
  page?: boolean;
  children?: ReactNode;
}

export function Empty({ title, page = false, children }: EmptyProps) {
  const Heading = page ? "h1" : "h2";
  return (
    <div className="max-w-prose p-4">
      <Heading className="mb-1">{title}</Heading>
      <div className="space-y-3 text-soft">{children}</div>
    </div>
  );
}

/** Where one can go from a page that does not work. */
export function WaysOut() {
  return (
    <nav aria-label={words.waysOut} className="flex flex-wrap gap-x-4">
      {words.tabs.map((tab) => (
        <a key={tab.to} href={tab.to} className="inline-flex min-h-11 items-center font-semibold">
          {tab.label}
        </a>
      ))}
    </nav>
  );
}

export function NoSuchPage() {
  return (
    <div className="max-w-prose p-4">
      <h1>{words.noPage}</h1>
      <p>{words.noPageAbout}</p>
      <WaysOut />
    </div>
  );
}

export function Failed({ error, again }: { error: unknown; again?: () => void }) {
  const lost = error instanceof OfflineError;
  const title = lost ? "No signal" : "That did not work";
  const text = lost
    ? "The server cannot be reached. What you typed is kept on this device."
    : error instanceof ApiError
      ? error.message
      : "Something unexpected happened on this page.";
  return (
    <div role="alert" className="m-4 max-w-prose border-l-4 border-warm p-3">
      <h2>{title}</h2>
      <p className="mb-3">{text}</p>
      {again && <Button onClick={again}>Try again</Button>}
    </div>
  );
}
