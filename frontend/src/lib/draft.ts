/** A reading as it is being typed: raw text, so that nothing is lost; turned into SI for the server. */
import type { Problem, Schemas } from "../api/client";
import type { Settings } from "./session";
import {
  boxText,
  type DepthUnit,
  depthFrom,
  depthTo,
  pressureFrom,
  pressureTo,
  type TemperatureUnit,
  temperatureFrom,
  temperatureTo,
  typedNumber,
  type WindUnit,
  windFrom,
  windTo,
} from "./units";

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

export interface Row {
  depth: string;
  temperature: string;
  oxygen: string;
}

export interface Draft {
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
  waterDepth: string;
  wind: string;
  gust: string;
  windFrom: string;
  cloud: string;
  clarity: Clarity | "";
  secchi: string;
  air: string;
  thunder: boolean;
  surface: Surface | "";
  /** Air pressure in hPa (inches of mercury beside feet), as a barometer at the water shows it or as forecasts give it. */
  pressure: string;
  pressureAt: "station" | "sea";
  /** Today's level against the datum of soundings; drawn down is negative. */
  level: string;
  seen: Record<string, Abundance>;
  /** How prey was met, where it was not simply seen. */
  met: Record<string, Evidence>;
  rises: Record<string, Abundance>;
  signs: Record<string, Abundance>;
  samples: Sample[];
  /** Where a value is from; left out = typed. */
  sources: Sources;
}

export const EMPTY_ROW: Row = { depth: "", temperature: "", oxygen: "" };

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
    waterDepth: "",
    wind: "",
    gust: "",
    windFrom: "",
    cloud: "",
    clarity: "",
    secchi: "",
    air: "",
    thunder: false,
    surface: "",
    pressure: "",
    pressureAt: "station",
    level: "",
    seen: {},
    met: {},
    rises: {},
    signs: {},
    samples: [],
    sources: {},
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
  return Object.fromEntries(
    Object.entries(sources).filter(([name]) => !names.includes(name as Measured)),
  ) as Sources;
}

function shown(value: number | null | undefined, to: (v: number) => number, digits: number): string {
  return value === null || value === undefined ? "" : boxText(to(value), digits);
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
  const depth = (v: number) => depthTo(base.depthUnit, v);
  const warmth = (v: number) => temperatureTo(base.temperatureUnit, v);
  const wind = (v: number) => windTo(base.windUnit, v);
  const digits = base.depthUnit === "m" ? 2 : 1;
  const sightings = stored.sightings ?? [];
  return {
    ...base,
    id: stored.id,
    place: stored.place ?? "",
    rows: (reading.profile ?? []).map((p) => ({
      depth: shown(p.depth_m, depth, digits),
      temperature: shown(p.temperature_c, warmth, 1),
      oxygen: shown(p.oxygen_mg_l, (v) => v, 1),
    })),
    profileAt: reading.profile_at ?? "",
    waterDepth: shown(reading.water_depth_m, depth, digits),
    wind: shown(reading.wind_m_s, wind, 1),
    gust: shown(reading.gust_m_s, wind, 1),
    windFrom:
      reading.wind_from_deg === null || reading.wind_from_deg === undefined
        ? ""
        : String(reading.wind_from_deg),
    cloud:
      reading.cloud_oktas === null || reading.cloud_oktas === undefined ? "" : String(reading.cloud_oktas),
    clarity: reading.clarity ?? "",
    secchi: shown(reading.secchi_m, depth, digits),
    air: shown(reading.air_temperature_c, warmth, 1),
    thunder: reading.thunder ?? false,
    surface: reading.surface ?? "",
    pressure: shown(
      reading.station_pressure_hpa ?? reading.sea_level_pressure_hpa,
      (v) => pressureTo(base.depthUnit, v),
      base.depthUnit === "m" ? 0 : 2,
    ),
    pressureAt: reading.sea_level_pressure_hpa != null ? "sea" : "station",
    level: shown(reading.level_m, depth, digits),
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

function notANumber(path: string, text: string): Problem {
  return {
    code: "not_a_number",
    path,
    message: `'${text.trim().slice(0, 30)}' is no number.`,
    accepted: "a number such as 4.5 or 4,5",
    hint: "",
  };
}

/** Turn the typed text into SI, with every box that holds no number named. */
export function readDraft(draft: Draft): Read {
  const problems: Problem[] = [];
  const take = (text: string, path: string, from: (v: number) => number): number | null => {
    const value = typedNumber(text);
    if (value === null) return null;
    if (Number.isNaN(value)) {
      problems.push(notANumber(path, text));
      return null;
    }
    return from(value);
  };
  const depth = (v: number) => depthFrom(draft.depthUnit, v);
  const warmth = (v: number) => temperatureFrom(draft.temperatureUnit, v);
  const wind = (v: number) => windFrom(draft.windUnit, v);
  const profile: NonNullable<Reading["profile"]> = [];
  const rowOf: number[] = [];
  draft.rows.forEach((row, index) => {
    if (!row.depth.trim() && !row.temperature.trim()) return;
    const here = `reading.profile[${profile.length}]`;
    rowOf.push(index);
    const z = take(row.depth, `${here}.depth_m`, depth);
    const t = take(row.temperature, `${here}.temperature_c`, warmth);
    const unfinished = index === draft.rows.length - 1 && !row.temperature.trim();
    for (const [value, text, name] of [
      [z, row.depth, "depth_m"],
      [t, row.temperature, "temperature_c"],
    ] as const) {
      if (value === null && !text.trim() && !unfinished) {
        const what = name === "depth_m" ? "The depth is missing." : "The temperature is missing.";
        problems.push({
          code: "missing",
          path: `${here}.${name}`,
          message: what,
          accepted: "a number",
          hint: "",
        });
      }
    }
    if (unfinished) {
      rowOf.pop();
      return;
    }
    profile.push({
      depth_m: z ?? Number.NaN, // never sent: the fault above holds the request back
      temperature_c: t ?? Number.NaN,
      oxygen_mg_l: take(row.oxygen, `${here}.oxygen_mg_l`, (v) => v),
    });
  });
  const sightings: NonNullable<PlanBody["sightings"]> = [
    ...Object.entries(draft.seen).map(
      ([prey, abundance]) =>
        ({ prey, abundance, ...(draft.met[prey] ? { evidence: draft.met[prey] } : {}) }) as Sighting,
    ),
    ...Object.entries(draft.rises).map(([rise, abundance]) => ({ rise, abundance }) as Sighting),
    ...Object.entries(draft.signs).map(([sign, abundance]) => ({ sign, abundance }) as Sighting),
  ];
  const pressure = take(draft.pressure, "reading.station_pressure_hpa", (v) =>
    pressureFrom(draft.depthUnit, v),
  );
  const reading: Reading = {
    profile,
    profile_at: draft.profileAt === "" || profile.length === 0 ? null : draft.profileAt,
    water_depth_m: take(draft.waterDepth, "reading.water_depth_m", depth),
    wind_m_s: take(draft.wind, "reading.wind_m_s", wind),
    gust_m_s: take(draft.gust, "reading.gust_m_s", wind),
    wind_from_deg: draft.windFrom === "" ? null : Number(draft.windFrom),
    cloud_oktas: draft.cloud === "" ? null : Number(draft.cloud),
    clarity: draft.clarity === "" ? null : draft.clarity,
    secchi_m: take(draft.secchi, "reading.secchi_m", depth),
    air_temperature_c: take(draft.air, "reading.air_temperature_c", warmth),
    thunder: draft.thunder,
    surface: draft.surface === "" ? null : draft.surface,
    station_pressure_hpa: draft.pressureAt === "station" ? pressure : null,
    sea_level_pressure_hpa: draft.pressureAt === "sea" ? pressure : null,
    level_m: take(draft.level, "reading.level_m", depth),
    sources: draft.sources,
  };
  return {
    body: { place: draft.place || null, reading, sightings, samples: draft.samples },
    problems,
    rowOf,
  };
}
