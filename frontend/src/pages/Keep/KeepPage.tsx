/** Everything out in one file, an archive in again, and the old notebook in. */
import { Link } from "wouter";
import { Archive } from "./Archive";
import { NotebookIn } from "./NotebookIn";
import { words } from "./strings";

export default function KeepPage() {
  return (
    <div className="mx-auto w-full max-w-3xl space-y-8 px-4 py-5">
      <header>
        <Link to="/log">{words.back}</Link>
        <h1>{words.title}</h1>
      </header>
      <section className="space-y-2">
        <h2>{words.all}</h2>
        <p className="max-w-prose text-soft">{words.allAbout}</p>
        <a
          href="/api/archive"
          download
          className="inline-flex min-h-11 items-center rounded-md border-2 border-water bg-water px-4 font-semibold text-on-water no-underline"
        >
          {words.save}
        </a>
      </section>
      <NotebookIn />
      <Archive />
    </div>
  );
}
