/** A water as it is being typed, and the body the server takes. */
import type { Problem, Schemas } from "../../api/client";
import type { Settings } from "../../lib/session";
import {
  areaFrom,
  areaTo,
  boxText,
  depthFrom,
  depthTo,
  temperatureFrom,
  temperatureTo,
  typedNumber,
} from "../../lib/units";
import { words } from "./strings";

type Body = Schemas["WaterBody"];
type Contour = Schemas["Contour"];
type Kind = Schemas["PlaceBody"]["kind"];
export type Species = NonNullable<Body["species"]>[number];

export interface PlaceDraft {
  id: string;
  name: string;
  kind: Kind;
  from: string;
  to: string;
  facing: string;
  latitude: string;
  longitude: string;
}

export interface WaterDraft {
  name: string;
  maxDepth: string;
  byPosition: boolean;
  hemisphere: "north" | "south";
  latitude: string;
  longitude: string;
  zone: string;
  species: Species[];
  stockedOn: string;
  places: PlaceDraft[];
  maxFlies: string;
  barbless: boolean;
  noFloats: boolean;
  noDroppers: boolean;
  noSinking: boolean;
  release: NonNullable<NonNullable<Body["rules"]>["release"]>;
  stopAbove: string;
  source: string;
  readOn: string | null;
  elevation: string;
  fetch: string;
  productivity: "" | "low" | "medium" | "high";
  /** Lines of depth and area, in the angler's units. */
  areas: string;
}

export function emptyPlace(kind: Kind = "drop-off"): PlaceDraft {
  return {
    id: crypto.randomUUID(),
    name: "",
    kind,
    from: "",
    to: "",
    facing: "",
    latitude: "",
    longitude: "",
  };
}

/** South of the equator summer time falls in January; where the clock never changes the north is taken. */
function hemisphereByClock(): "north" | "south" {
  const year = new Date().getFullYear();
  const off = (month: number) => new Date(year, month, 1).getTimezoneOffset();
  return off(0) < off(6) ? "south" : "north";
}

/** A first place as one fishes it: the margin from the bank, the drop-off from a boat; one that was named stays. */
export function firstPlace(water: WaterDraft, afloat: boolean): WaterDraft {
  const [first, ...others] = water.places;
  if (!first || others.length > 0 || first.name.trim() !== "") return water;
  return { ...water, places: [{ ...first, kind: afloat ? "drop-off" : "margin" }] };
}

export function emptyWater(): WaterDraft {
  return {
    name: "",
    maxDepth: "",
    byPosition: false,
    hemisphere: hemisphereByClock(),
    latitude: "",
    longitude: "",
    zone: Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC",
    species: ["rainbow"],
    stockedOn: "",
    places: [emptyPlace("margin")],
    maxFlies: "",
    barbless: false,
    noFloats: false,
    noDroppers: false,
    noSinking: false,
    release: "unknown",
    stopAbove: "",
    source: "",
    readOn: null,
    elevation: "",
    fetch: "",
    productivity: "",
    areas: "",
  };
}

export function draftOfWater(water: Schemas["WaterOut"], settings: Settings): WaterDraft {
  const depth = (m: number) => boxText(depthTo(settings.depth_unit, m), settings.depth_unit === "m" ? 2 : 1);
  const rules = water.rules ?? {};
  return {
    name: water.name,
    maxDepth: depth(water.max_depth_m),
    byPosition: water.latitude_deg != null,
    hemisphere: water.hemisphere ?? "north",
    latitude: water.latitude_deg?.toString() ?? "",
    longitude: water.longitude_deg?.toString() ?? "",
    zone: water.time_zone ?? "UTC",
    species: water.species ?? ["rainbow"],
    stockedOn: water.stocked_on ?? "",
    places: water.places.map((p) => ({
      id: p.id,
      name: p.name,
      kind: p.kind,
      from: depth(p.depth_min_m ?? 0),
      to: depth(p.depth_max_m),
      facing: p.facing_deg == null ? "" : String(p.facing_deg),
      latitude: p.latitude_deg?.toString() ?? "",
      longitude: p.longitude_deg?.toString() ?? "",
    })),
    maxFlies: rules.max_flies?.toString() ?? "",
    barbless: rules.barbless ?? false,
    noFloats: rules.floats_allowed === false,
    noDroppers: rules.droppers_allowed === false,
    noSinking: rules.sinking_lines_allowed === false,
    release: rules.release ?? "unknown",
    stopAbove:
      rules.stop_above_c == null
        ? ""
        : boxText(temperatureTo(settings.temperature_unit, rules.stop_above_c), 1),
    source: water.rules_source ?? "",
    readOn: water.rules_read_on ?? null,
    elevation: water.elevation_m == null ? "" : boxText(depthTo(settings.depth_unit, water.elevation_m), 0),
    fetch: water.fetch_m == null ? "" : boxText(depthTo(settings.depth_unit, water.fetch_m), 0),
    productivity: water.productivity ?? "",
    areas: (water.hypsography ?? [])
      .map((row) => `${depth(row.depth_m)} ${boxText(areaTo(settings.depth_unit, row.area_m2), 2)}`)
      .join("\n"),
  };
}

/** The lines of a depth-area table in SI, or the number of the first line that is none. @tested */
export function readAreas(text: string, unit: "m" | "ft"): { rows: Contour[]; badLine: number | null } {
  const rows: Contour[] = [];
  for (const [i, line] of text.split("\n").entries()) {
    if (!line.trim()) continue;
    const parts = line.trim().split(/[\s;]+/);
    const [depth, area] = parts.map(typedNumber);
    const read = parts.length === 2 && depth != null && area != null;
    if (!read || Number.isNaN(depth) || Number.isNaN(area)) return { rows: [], badLine: i + 1 };
    rows.push({ depth_m: depthFrom(unit, depth), area_m2: areaFrom(unit, area) });
  }
  return { rows, badLine: null };
}

/** The body for the server, with what could not be read named by path. Empty places are left out. */
export function readWater(draft: WaterDraft, settings: Settings): { body: Body; problems: Problem[] } {
  const problems: Problem[] = [];
  const fault = (path: string, message: string, accepted: string) =>
    problems.push({ code: "form", path, message, accepted, hint: "" });
  const number = (text: string, path: string, needed: boolean): number | null => {
    const value = typedNumber(text);
    if (value === null && needed)
      fault(path, words.needed[path.split(".").at(-1) ?? ""] ?? words.neededElse, "a number");
    if (value !== null && Number.isNaN(value))
      fault(path, `'${text.trim()}' is no number.`, "a number such as 4.5 or 4,5");
    return value === null || Number.isNaN(value) ? null : value;
  };
  const metres = (text: string, path: string, needed: boolean) => {
    const value = number(text, path, needed);
    return value === null ? null : depthFrom(settings.depth_unit, value);
  };
  if (!draft.name.trim()) fault("name", words.needed.name ?? "", "any words");
  const places = draft.places
    .filter((p) => p.name.trim() || p.from.trim() || p.to.trim())
    .map((p, i) => {
      return {
        id: p.id,
        name: p.name.trim() || (words.kinds.find((one) => one.value === p.kind)?.label ?? "?"),
        kind: p.kind,
        depth_min_m: metres(p.from, `places[${i}].depth_min_m`, false) ?? 0,
        depth_max_m: metres(p.to, `places[${i}].depth_max_m`, true) ?? 1,
        facing_deg: p.facing === "" ? null : Number(p.facing),
        latitude_deg: number(p.latitude, `places[${i}].latitude_deg`, p.longitude.trim() !== ""),
        longitude_deg: number(p.longitude, `places[${i}].longitude_deg`, p.latitude.trim() !== ""),
      };
    });
  if (places.length === 0) fault("places", words.needed.places ?? "", "the depth of its bed");
  const stop = number(draft.stopAbove, "rules.stop_above_c", false);
  const rules: NonNullable<Body["rules"]> = {
    max_flies: draft.maxFlies === "" ? null : Number(draft.maxFlies),
    barbless: draft.barbless || null,
    floats_allowed: draft.noFloats ? false : null,
    droppers_allowed: draft.noDroppers ? false : null,
    sinking_lines_allowed: draft.noSinking ? false : null,
    release: draft.release,
    stop_above_c: stop === null ? null : temperatureFrom(settings.temperature_unit, stop),
  };
  const areas = readAreas(draft.areas, settings.depth_unit);
  if (areas.badLine !== null) fault("hypsography", words.badArea(areas.badLine), words.areaAccepted);
  const body: Body = {
    name: draft.name.trim() || "?",
    hemisphere: draft.hemisphere,
    latitude_deg: draft.byPosition ? number(draft.latitude, "latitude_deg", true) : null,
    longitude_deg: draft.byPosition ? number(draft.longitude, "longitude_deg", true) : null,
    time_zone: draft.zone,
    max_depth_m: metres(draft.maxDepth, "max_depth_m", true) ?? 1,
    species: draft.species,
    stocked_on: draft.stockedOn || null,
    elevation_m: metres(draft.elevation, "elevation_m", false),
    fetch_m: metres(draft.fetch, "fetch_m", false),
    productivity: draft.productivity || null,
    hypsography: areas.rows,
    rules,
    rules_read_on: new Date().toISOString().slice(0, 10),
    rules_source: draft.source,
    places,
  };
  return { body, problems };
}
