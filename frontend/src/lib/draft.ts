/** A reading as it is being typed: raw text, so that nothing is lost; turned into SI for the server. */
import type { Problem, Schemas } from "../api/client";
import { amountText, blank, boxesOf, readBoxes, type Shown, show, type Units, unitsOf } from "./fields";
import type { Settings } from "./session";
import type { DepthUnit, TemperatureUnit, WindUnit } from "./units";

export type Abundance = "few" | "some" | "many";
export type PlanBody = Schemas["PlanBody"];
type Reading = Schemas["Reading"];
type Clarity = NonNullable<Reading["clarity"]>;
type Surface = NonNullable<Reading["surface"]>;
type Sighting = Schemas["Sighting"];
export type Evidence = NonNullable<Sighting["evidence"]>;
export type Sources = NonNullable<Reading["sources"]>;
export type Measured = keyof Sources;
export type Sample = Schemas["ThroatSample"];

const row = boxesOf<NonNullable<Reading["profile"]>[number]>();
const ROW = {
  depth: row.amount("depth_m", "depth"),
  temperature: row.amount("temperature_c", "temperature"),
  oxygen: row.amount("oxygen_mg_l", "tenths"),
};

const box = boxesOf<Reading>();
/** The boxes of a reading: what each holds of it, and how it is typed. */
const BOXES = {
  waterDepth: box.amount("water_depth_m", "depth"),
  wind: box.amount("wind_m_s", "wind"),
  gust: box.amount("gust_m_s", "wind"),
  windFrom: box.step("wind_from_deg"),
  cloud: box.step("cloud_oktas"),
  clarity: box.choice<Clarity>("clarity"),
  secchi: box.amount("secchi_m", "depth"),
  air: box.amount("air_temperature_c", "temperature"),
  thunder: box.tick("thunder"),
  surface: box.choice<Surface>("surface"),
  /** Today's level against the datum of soundings; drawn down is negative. */
  level: box.amount("level_m", "depth"),
};

/** Air pressure in hPa (inches of mercury beside feet): as a barometer at the water shows it, or as forecasts give it. */
const PRESSURE = {
  station: { pressure: box.amount("station_pressure_hpa", "pressure") },
  sea: { pressure: box.amount("sea_level_pressure_hpa", "pressure") },
};

export type Row = Shown<typeof ROW>;

export interface Draft extends Shown<typeof BOXES>, Shown<(typeof PRESSURE)["station"]> {
  id: string;
  /** When it was last touched on this device (an instant); "" where nobody knows. */
  at: string;
  place: string;
  when: string;
  depthUnit: DepthUnit;
  temperatureUnit: TemperatureUnit;
  windUnit: WindUnit;
  rows: Row[];
  /** When the temperatures were read (an instant), where they are carried over from an earlier reading; else "". */
  profileAt: string;
  /** The reading this one followed on, as the plan is compared with it; "" where there is none, or it was seen. */
  before: string;
  pressureAt: keyof typeof PRESSURE;
  seen: Record<string, Abundance>;
  /** How prey was met, where it was not simply seen. */
  met: Record<string, Evidence>;
  rises: Record<string, Abundance>;
  signs: Record<string, Abundance>;
  samples: Sample[];
  /** Where a value is from; left out = typed. */
  sources: Sources;
}

export const EMPTY_ROW: Row = blank(ROW);

export function emptyDraft(settings: Settings): Draft {
  return {
    id: crypto.randomUUID(),
    at: "",
    place: "",
    when: "",
    depthUnit: settings.depth_unit,
    temperatureUnit: settings.temperature_unit,
    windUnit: settings.wind_unit,
    rows: [{ ...EMPTY_ROW }],
    profileAt: "",
    before: "",
    ...blank(BOXES),
    pressure: "",
    pressureAt: "station",
    seen: {},
    met: {},
    rises: {},
    signs: {},
    samples: [],
    sources: {},
  };
}

/** A draft keeps the units that it was typed in. */
type In = Pick<Draft, "depthUnit" | "temperatureUnit" | "windUnit">;

const unitsIn = (draft: In): Units => ({
  depth: draft.depthUnit,
  temperature: draft.temperatureUnit,
  wind: draft.windUnit,
});

/** Rows of a stored or imported profile, as they are typed in a draft. */
export const rowsOf = (profile: readonly object[], draft: In): Row[] =>
  profile.map((point) => show(ROW, point, unitsIn(draft)));

/** Values of a reading from elsewhere (an instrument, a forecast), as they are typed in a draft: what is left out stays. */
export function inBoxes(found: Partial<Reading>, draft: In): Partial<Draft> {
  const given = Object.entries(BOXES).filter(([, one]) => one.at in found);
  const sea = found.sea_level_pressure_hpa;
  const pressure = amountText("pressure", unitsIn(draft), sea);
  return {
    ...show(Object.fromEntries(given), found, unitsIn(draft)),
    ...(sea == null ? {} : { pressure, pressureAt: "sea" as const }),
  };
}

function alike(kept: unknown, pattern: unknown): boolean {
  if (Array.isArray(pattern)) return Array.isArray(kept);
  if (typeof pattern !== "object" || pattern === null) return typeof kept === typeof pattern;
  return typeof kept === "object" && kept !== null && !Array.isArray(kept);
}

/** What was kept on the device as a draft; one of an earlier version lacks what came since. Null where it is none. */
export function keptDraft(kept: unknown, settings: Settings): Draft | null {
  if (!alike(kept, {})) return null;
  const empty = emptyDraft(settings);
  const found = { ...empty, ...(kept as Partial<Draft>) };
  const whole = Object.entries(empty).every(([name, value]) => alike(found[name as keyof Draft], value));
  const rows =
    whole &&
    found.rows.every((row) => alike(row, {}) && Object.values(row).every((v) => typeof v === "string"));
  const at = whole && Number.isNaN(Date.parse(found.at)) ? "" : found.at;
  return rows ? { ...found, at, rows: found.rows.map((row) => ({ ...EMPTY_ROW, ...row })) } : null;
}

/** The sources with some values typed over. */
export function typed(sources: Sources, ...names: Measured[]): Sources {
  if (!names.some((name) => name in sources)) return sources;
  return Object.fromEntries(
    Object.entries(sources).filter(([name]) => !names.includes(name as Measured)),
  ) as Sources;
}

function amounts(
  sightings: Sighting[],
  named: (s: Sighting) => string | null | undefined,
): Record<string, Abundance> {
  return Object.fromEntries(sightings.filter(named).map((s) => [named(s), s.abundance ?? "some"]));
}

/** A stored reading put back into the boxes, in the angler's units. */
export function draftFrom(stored: Schemas["ReadingOut"], settings: Settings): Draft {
  const { reading } = stored;
  const base = emptyDraft(settings);
  const units = unitsOf(settings);
  const sightings = stored.sightings ?? [];
  return {
    ...base,
    ...show(BOXES, reading, units),
    id: stored.id,
    place: stored.place ?? "",
    rows: rowsOf(reading.profile ?? [], base),
    profileAt: reading.profile_at ?? "",
    pressure: amountText("pressure", units, reading.station_pressure_hpa ?? reading.sea_level_pressure_hpa),
    pressureAt: reading.sea_level_pressure_hpa != null ? "sea" : "station",
    seen: amounts(sightings, (s) => s.prey),
    met: Object.fromEntries(
      sightings.filter((s) => s.prey && s.evidence && s.evidence !== "seen").map((s) => [s.prey, s.evidence]),
    ),
    rises: amounts(sightings, (s) => s.rise),
    signs: amounts(sightings, (s) => s.sign),
    samples: stored.samples ?? [],
    sources: reading.sources ?? {},
  };
}

export type ReadBefore = Schemas["Read"];

/**
 * A new reading after an earlier one: place, temperatures (with their age) and what changes slowly come with it; wind, sky
 * and what was seen are asked anew.
 */
export function carriedOver(from: Draft, before: ReadBefore, settings: Settings): Draft {
  const { place, depthUnit, temperatureUnit, windUnit, rows, waterDepth, clarity, secchi, level } = from;
  const kept = { place, depthUnit, temperatureUnit, windUnit, rows, waterDepth, clarity, secchi, level };
  const profile = from.sources.profile;
  return {
    ...emptyDraft(settings),
    ...kept,
    profileAt: rows.some((row) => row.temperature.trim() !== "") ? from.profileAt || before.when : "",
    before: JSON.stringify(before),
    sources: profile ? { profile } : {},
  };
}

/** What a stored reading is compared as. */
export function asBefore(stored: Schemas["ReadingOut"]): ReadBefore {
  const { taken_at, place, reading, sightings, samples } = stored;
  return { when: taken_at, place: place ?? null, reading, sightings, samples } as ReadBefore;
}

export interface Read {
  body: Pick<PlanBody, "place" | "reading" | "sightings" | "samples">;
  /** Faults found while typing, by the path the server would use. */
  problems: Problem[];
  /** Which row of the table each profile entry came from. */
  rowOf: number[];
}

const MISSING: Record<string, string> = {
  depth_m: "The depth is missing.",
  temperature_c: "The temperature is missing.",
};

/** The rows of the table that say something; the last one may be half typed. */
function readRows(draft: Draft, problems: Problem[]) {
  const units = unitsIn(draft);
  const profile: NonNullable<Reading["profile"]> = [];
  const rowOf: number[] = [];
  draft.rows.forEach((row, index) => {
    if (!row.depth.trim() && !row.temperature.trim()) return;
    const unfinished = index === draft.rows.length - 1 && !row.temperature.trim();
    const below = `reading.profile[${profile.length}].`;
    const needed = (at: string) => (unfinished ? undefined : MISSING[at]);
    const read = readBoxes<typeof ROW, (typeof profile)[number]>(ROW, row, {
      units,
      below,
      problems,
      needed,
    });
    if (unfinished) return;
    rowOf.push(index);
    profile.push(read);
  });
  return { profile, rowOf };
}

/** Turn the typed text into SI, with every box that holds no number named. */
export function readDraft(draft: Draft): Read {
  const problems: Problem[] = [];
  const { profile, rowOf } = readRows(draft, problems);
  const sightings: NonNullable<PlanBody["sightings"]> = [
    ...Object.entries(draft.seen).map(
      ([prey, abundance]) =>
        ({ prey, abundance, ...(draft.met[prey] ? { evidence: draft.met[prey] } : {}) }) as Sighting,
    ),
    ...Object.entries(draft.rises).map(([rise, abundance]) => ({ rise, abundance }) as Sighting),
    ...Object.entries(draft.signs).map(([sign, abundance]) => ({ sign, abundance }) as Sighting),
  ];
  const told = { units: unitsIn(draft), below: "reading.", problems };
  const reading: Reading = {
    ...readBoxes<typeof BOXES, Reading>(BOXES, draft, told),
    profile,
    profile_at: draft.profileAt === "" || profile.length === 0 ? null : draft.profileAt,
    station_pressure_hpa: null,
    sea_level_pressure_hpa: null,
    ...readBoxes<typeof PRESSURE.station, Partial<Reading>>(PRESSURE[draft.pressureAt], draft, told),
    sources: draft.sources,
  };
  return {
    body: { place: draft.place || null, reading, sightings, samples: draft.samples },
    problems,
    rowOf,
  };
}
