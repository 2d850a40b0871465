/** A pattern as it is being typed, and the body the server takes. */
import type { Schemas } from "../../api/client";
import { typedNumber } from "../../lib/units";
import { words } from "./strings";

type Body = Schemas["FlyBody"];
type Build = NonNullable<Body["build"]>;

export interface PatternDraft {
  name: string;
  family: string;
  prey: string[];
  hooks: string;
  tone: Body["tone"];
  weight: Body["weight"];
  surface: boolean;
  built: boolean;
  hook: string;
  wire: Build["wire"];
  bead: string;
  beadMm: string;
  turns: string;
  foam: string;
  bulk: Build["bulk"];
  materials: string;
  steps: string;
}

export function emptyPattern(): PatternDraft {
  return {
    name: "",
    family: "",
    prey: [],
    hooks: "12",
    tone: "natural",
    weight: "unweighted",
    surface: false,
    built: true,
    hook: "12",
    wire: "standard",
    bead: "",
    beadMm: "",
    turns: "",
    foam: "",
    bulk: "slim",
    materials: "",
    steps: "",
  };
}

const shown = (value: number | undefined) => (value ? String(value) : "");

export function draftOfPattern(body: Body): PatternDraft {
  const build = body.build;
  return {
    ...emptyPattern(),
    name: body.name,
    family: body.family ?? "",
    prey: body.prey,
    hooks: body.hooks.join(" "),
    tone: body.tone,
    weight: body.weight,
    surface: body.surface ?? false,
    built: build != null,
    hook: String(build?.hook ?? body.hooks[0] ?? 12),
    wire: build?.wire ?? "standard",
    bead: build?.bead ?? "",
    beadMm: shown(build?.bead_mm),
    turns: shown(build?.turns),
    foam: shown(build?.foam_mm3),
    bulk: build?.bulk ?? "slim",
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
  if (hooks.length === 0 || hooks.some((h) => !Number.isInteger(h) || h < 4 || h > 20))
    return fail(words.form.badHooks);
  if (draft.prey.length === 0) return fail(words.form.needPrey);
  const numbers: Record<string, number> = {};
  for (const [name, text] of [
    [words.form.beadSize, draft.beadMm],
    [words.form.turns, draft.turns],
    [words.form.foam, draft.foam],
  ] as const) {
    const value = typedNumber(text);
    if (value !== null && !(value >= 0)) return fail(words.form.badNumber(name));
    numbers[name] = value ?? 0;
  }
  const lines = draft.materials.split("\n");
  const materials = lines.map((line) => (line.trim() ? readMaterial(line) : undefined));
  const bad = materials.indexOf(null);
  if (bad >= 0) return fail(words.form.badMaterial(bad + 1));
  const hook = hooks.includes(Number(draft.hook)) ? Number(draft.hook) : (hooks[0] ?? 12);
  return {
    wrong: null,
    body: {
      name: draft.name.trim(),
      family: (draft.family || null) as Body["family"],
      prey: draft.prey as Body["prey"],
      hooks,
      tone: draft.tone,
      weight: draft.weight,
      surface: draft.surface,
      stock: before?.stock ?? null,
      counts: before?.counts ?? [],
      build: draft.built
        ? {
            hook,
            wire: draft.wire,
            bead: (draft.bead || null) as Build["bead"],
            bead_mm: draft.bead ? (numbers[words.form.beadSize] ?? 0) : 0,
            turns: numbers[words.form.turns] ?? 0,
            turns_wire_mm: before?.build?.turns_wire_mm ?? 0.4,
            foam_mm3: numbers[words.form.foam] ?? 0,
            bulk: draft.bulk,
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
