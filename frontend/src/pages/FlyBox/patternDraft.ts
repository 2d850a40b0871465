/** A pattern as it is being typed, and the body the server takes. */
import type { Problem, Schemas } from "../../api/client";
import { FlyBuild_hook_least, FlyBuild_hook_most } from "../../api/generated/limits";
import { blank, boxesOf, readBoxes, type Shown, show, type Units } from "../../lib/fields";
import { within } from "../../lib/within";
import { words } from "./strings";

type Body = Schemas["FlyBody"];
type Build = NonNullable<Body["build"]>;

const fly = boxesOf<Body>();
const FLY = {
  name: fly.word<string>("name", ""),
  family: fly.choice<string>("family"),
  tone: fly.word<Body["tone"]>("tone", "natural"),
  weight: fly.word<Body["weight"]>("weight", "unweighted"),
  surface: fly.tick("surface"),
};

const build = boxesOf<Build>();
const BUILD = {
  wire: build.word<Build["wire"]>("wire", "standard"),
  bead: build.choice<string>("bead"),
  beadMm: build.orNought("bead_mm"),
  turns: build.orNought("turns"),
  foam: build.orNought("foam_mm3"),
  bulk: build.word<Build["bulk"]>("bulk", "slim"),
};

const NAMES: Record<string, string> = {
  bead_mm: words.form.beadSize,
  turns: words.form.turns,
  foam_mm3: words.form.foam,
};

/** A tier's numbers are the same everywhere. */
const UNITS: Units = { depth: "m", temperature: "c", wind: "m_s" };

export interface PatternDraft extends Shown<typeof FLY>, Shown<typeof BUILD> {
  prey: string[];
  hooks: string;
  built: boolean;
  hook: string;
  materials: string;
  steps: string;
}

export function emptyPattern(): PatternDraft {
  return {
    ...blank(FLY),
    ...blank(BUILD),
    ...{ prey: [], hooks: "12", built: true, hook: "12", materials: "", steps: "" },
  };
}

export function draftOfPattern(body: Body): PatternDraft {
  return {
    ...show(FLY, body, UNITS),
    ...show(BUILD, body.build ?? {}, UNITS),
    prey: body.prey,
    hooks: body.hooks.join(" "),
    built: body.build != null,
    hook: String(body.build?.hook ?? body.hooks[0] ?? 12),
    materials: (body.recipe?.materials ?? [])
      .map((m) => `${m.part}: ${[m.colour, m.what, m.size].filter((w, i) => w || i === 1).join(" / ")}`)
      .join("\n"),
    steps: (body.recipe?.steps ?? [])
      .map((s) => (s.caution ? `${s.text} | ${s.caution}` : s.text))
      .join("\n"),
  };
}

/** `part: colour / what / size`; with one word it is the what, with two colour and what. */
function readMaterial(line: string): Schemas["Material"] | null {
  const at = line.indexOf(":");
  if (at < 1) return null;
  const parts = line
    .slice(at + 1)
    .split("/")
    .map((p) => p.trim());
  const [colour = "", what = "", size = ""] = parts.length === 1 ? ["", parts[0] ?? ""] : parts;
  return { part: line.slice(0, at).trim() as Schemas["Material"]["part"], what, colour, size };
}

/** `what to do | what to mind`; the bar and what follows may be left out. */
function readStep(line: string): { text: string; caution: string } {
  const at = line.indexOf("|");
  const [text, caution] = at < 0 ? [line, ""] : [line.slice(0, at), line.slice(at + 1)];
  return { text: text.trim(), caution: caution.trim() };
}

/** The body, or what is wrong with the first box that cannot be read. */
export function readPattern(
  draft: PatternDraft,
  before: Body | null,
): { body: Body | null; wrong: string | null } {
  const fail = (wrong: string) => ({ body: null, wrong });
  const hooks = draft.hooks
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  if (
    hooks.length === 0 ||
    hooks.some((h) => !Number.isInteger(h) || !within(h, FlyBuild_hook_least, FlyBuild_hook_most))
  )
    return fail(words.form.badHooks);
  if (draft.prey.length === 0) return fail(words.form.needPrey);
  const problems: Problem[] = [];
  const numbers = readBoxes<typeof BUILD, Build>(BUILD, draft, { units: UNITS, below: "", problems });
  const [bad] = problems;
  if (bad) return fail(words.form.badNumber(NAMES[bad.path] ?? ""));
  const lines = draft.materials.split("\n");
  const materials = lines.map((line) => (line.trim() ? readMaterial(line) : undefined));
  const unread = materials.indexOf(null);
  if (unread >= 0) return fail(words.form.badMaterial(unread + 1));
  const hook = hooks.includes(Number(draft.hook)) ? Number(draft.hook) : (hooks[0] ?? 12);
  return {
    wrong: null,
    body: {
      ...readBoxes<typeof FLY, Body>(FLY, draft, { units: UNITS, below: "", problems }),
      name: draft.name.trim(),
      prey: draft.prey as Body["prey"],
      hooks,
      stock: before?.stock ?? null,
      counts: before?.counts ?? [],
      build: draft.built
        ? {
            ...numbers,
            hook,
            bead_mm: draft.bead ? numbers.bead_mm : 0,
            turns_wire_mm: before?.build?.turns_wire_mm ?? 0.4,
          }
        : null,
      recipe: {
        materials: materials.filter((m): m is Schemas["Material"] => m != null),
        steps: draft.steps
          .split("\n")
          .map(readStep)
          .filter((step) => step.text !== ""),
      },
    },
  };
}
