/** A water as it is being typed, and the body the server takes. */
import type { Problem, Schemas } from "../../api/client";
import type { Settings } from "../../lib/session";
import { boxText, depthFrom, depthTo, temperatureFrom, temperatureTo, typedNumber } from "../../lib/units";

type Body = Schemas["WaterBody"];
type Kind = Schemas["PlaceBody"]["kind"];
export type Species = NonNullable<Body["species"]>[number];

export interface PlaceDraft {
  id: string;
  name: string;
  kind: Kind;
  from: string;
  to: string;
  facing: string;
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
}

export function emptyPlace(kind: Kind = "drop-off"): PlaceDraft {
  return { id: crypto.randomUUID(), name: "", kind, from: "", to: "", facing: "" };
}

export function emptyWater(): WaterDraft {
  return {
    name: "",
    maxDepth: "",
    byPosition: false,
    hemisphere: "north",
    latitude: "",
    longitude: "",
    zone: Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC",
    species: ["rainbow"],
    stockedOn: "",
    places: [emptyPlace("drop-off"), emptyPlace("margin")],
    maxFlies: "",
    barbless: false,
    noFloats: false,
    noDroppers: false,
    noSinking: false,
    release: "unknown",
    stopAbove: "",
    source: "",
    readOn: null,
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
  };
}

/** The body for the server, with what could not be read named by path. Empty places are left out. */
export function readWater(draft: WaterDraft, settings: Settings): { body: Body; problems: Problem[] } {
  const problems: Problem[] = [];
  const fault = (path: string, message: string, accepted: string) =>
    problems.push({ code: "form", path, message, accepted, hint: "" });
  const number = (text: string, path: string, needed: boolean): number | null => {
    const value = typedNumber(text);
    if (value === null && needed) fault(path, "This is needed.", "a number");
    if (value !== null && Number.isNaN(value))
      fault(path, `'${text.trim()}' is no number.`, "a number such as 4.5 or 4,5");
    return value === null || Number.isNaN(value) ? null : value;
  };
  const metres = (text: string, path: string, needed: boolean) => {
    const value = number(text, path, needed);
    return value === null ? null : depthFrom(settings.depth_unit, value);
  };
  if (!draft.name.trim()) fault("name", "A water needs a name.", "any words");
  const places = draft.places
    .filter((p) => p.name.trim() || p.from.trim() || p.to.trim())
    .map((p, i) => {
      if (!p.name.trim()) fault(`places[${i}].name`, "A place needs a name.", "any words");
      return {
        id: p.id,
        name: p.name.trim() || "?",
        kind: p.kind,
        depth_min_m: metres(p.from, `places[${i}].depth_min_m`, false) ?? 0,
        depth_max_m: metres(p.to, `places[${i}].depth_max_m`, true) ?? 1,
        facing_deg: p.facing === "" ? null : Number(p.facing),
      };
    });
  if (places.length === 0)
    fault("places", "At least one place is needed.", "a name and the depth of the bed");
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
  const body: Body = {
    name: draft.name.trim() || "?",
    hemisphere: draft.hemisphere,
    latitude_deg: draft.byPosition ? number(draft.latitude, "latitude_deg", true) : null,
    longitude_deg: draft.byPosition ? number(draft.longitude, "longitude_deg", true) : null,
    time_zone: draft.zone,
    max_depth_m: metres(draft.maxDepth, "max_depth_m", true) ?? 1,
    species: draft.species,
    stocked_on: draft.stockedOn || null,
    rules,
    rules_read_on: new Date().toISOString().slice(0, 10),
    rules_source: draft.source,
    places,
  };
  return { body, problems };
}
