/** A water as it is being typed, and the body the server takes. */
import type { Problem, Schemas } from "../../api/client";
import { amountText, blank, boxesOf, readBoxes, type Shown, show, unitsOf } from "../../lib/fields";
import type { Settings } from "../../lib/session";
import { areaFrom, depthFrom, typedNumber } from "../../lib/units";
import { words } from "./strings";

type Body = Schemas["WaterBody"];
type Contour = Schemas["Contour"];
type Place = Schemas["PlaceBody"];
type Rules = NonNullable<Body["rules"]>;
type Kind = Place["kind"];
export type Species = NonNullable<Body["species"]>[number];

const place = boxesOf<Place>();
const PLACE = {
  from: place.amount("depth_min_m", "depth"),
  to: place.amount("depth_max_m", "depth"),
  facing: place.step("facing_deg"),
  latitude: place.amount("latitude_deg", "plain"),
  longitude: place.amount("longitude_deg", "plain"),
};

const rule = boxesOf<Rules>();
const RULES = {
  maxFlies: rule.step("max_flies"),
  barbless: rule.says("barbless", true),
  noFloats: rule.says("floats_allowed", false),
  noDroppers: rule.says("droppers_allowed", false),
  noSinking: rule.says("sinking_lines_allowed", false),
  release: rule.word<NonNullable<Rules["release"]>>("release", "unknown"),
  stopAbove: rule.amount("stop_above_c", "temperature"),
};

const water = boxesOf<Body>();
/** The boxes of a water: what each holds of it, and how it is typed. */
const WATER = {
  name: water.word<string>("name", ""),
  maxDepth: water.amount("max_depth_m", "depth"),
  hemisphere: water.word<"north" | "south">("hemisphere", "north"),
  latitude: water.amount("latitude_deg", "plain"),
  longitude: water.amount("longitude_deg", "plain"),
  zone: water.word<string>("time_zone", "UTC"),
  stockedOn: water.choice<string>("stocked_on"),
  source: water.word<string>("rules_source", ""),
  elevation: water.amount("elevation_m", "distance"),
  fetch: water.amount("fetch_m", "distance"),
  productivity: water.choice<NonNullable<Body["productivity"]>>("productivity"),
};

export interface PlaceDraft extends Shown<typeof PLACE> {
  id: string;
  name: string;
  kind: Kind;
}

export interface WaterDraft extends Shown<typeof WATER>, Shown<typeof RULES> {
  byPosition: boolean;
  species: Species[];
  places: PlaceDraft[];
  readOn: string | null;
  /** Lines of depth and area, in the angler's units. */
  areas: string;
}

export function emptyPlace(kind: Kind = "drop-off"): PlaceDraft {
  return { ...blank(PLACE), id: crypto.randomUUID(), name: "", kind };
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
    ...blank(WATER),
    ...blank(RULES),
    byPosition: false,
    hemisphere: hemisphereByClock(),
    zone: Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC",
    species: ["rainbow"],
    places: [emptyPlace("margin")],
    readOn: null,
    areas: "",
  };
}

export function draftOfWater(water: Schemas["WaterOut"], settings: Settings): WaterDraft {
  const units = unitsOf(settings);
  return {
    ...show(WATER, water, units),
    ...show(RULES, water.rules ?? {}, units),
    byPosition: water.latitude_deg != null,
    species: water.species ?? ["rainbow"],
    places: water.places.map((p) => ({
      ...show(PLACE, { ...p, depth_min_m: p.depth_min_m ?? 0 }, units),
      id: p.id,
      name: p.name,
      kind: p.kind,
    })),
    readOn: water.rules_read_on ?? null,
    areas: (water.hypsography ?? [])
      .map((row) => `${amountText("depth", units, row.depth_m)} ${amountText("area", units, row.area_m2)}`)
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

/** The places that say something; one without a name is called by its kind. */
function readPlaces(draft: WaterDraft, settings: Settings, problems: Problem[]): Body["places"] {
  const said = draft.places.filter((p) => p.name.trim() || p.from.trim() || p.to.trim());
  return said.map((p, i) => {
    const half = {
      depth_max_m: true,
      latitude_deg: p.longitude.trim() !== "",
      longitude_deg: p.latitude.trim() !== "",
    };
    const read = readBoxes<
      typeof PLACE,
      Pick<Place, "facing_deg" | "latitude_deg" | "longitude_deg"> & Partial<Place>
    >(PLACE, p, {
      units: unitsOf(settings),
      below: `places[${i}].`,
      problems,
      needed: (at) => (half[at as keyof typeof half] ? (words.needed[at] ?? words.neededElse) : undefined),
    });
    const name = p.name.trim() || (words.kinds.find((one) => one.value === p.kind)?.label ?? "?");
    const [depth_min_m, depth_max_m] = [read.depth_min_m ?? 0, read.depth_max_m ?? 1];
    return { ...read, id: p.id, name, kind: p.kind, depth_min_m, depth_max_m };
  });
}

/** The body for the server, with what could not be read named by path. Empty places are left out. */
export function readWater(draft: WaterDraft, settings: Settings): { body: Body; problems: Problem[] } {
  const problems: Problem[] = [];
  const units = unitsOf(settings);
  const fault = (path: string, message: string, accepted: string) =>
    problems.push({ code: "form", path, message, accepted, hint: "" });
  if (!draft.name.trim()) fault("name", words.needed.name ?? "", "any words");
  const places = readPlaces(draft, settings, problems);
  if (places.length === 0) fault("places", words.needed.places ?? "", "the depth of its bed");
  const rules = readBoxes<typeof RULES, Rules>(RULES, draft, { units, below: "rules.", problems });
  const areas = readAreas(draft.areas, settings.depth_unit);
  if (areas.badLine !== null) fault("hypsography", words.badArea(areas.badLine), words.areaAccepted);
  const needed = new Set(["max_depth_m", ...(draft.byPosition ? ["latitude_deg", "longitude_deg"] : [])]);
  const read = readBoxes<typeof WATER, Body>(
    WATER,
    draft.byPosition ? draft : { ...draft, latitude: "", longitude: "" },
    {
      units,
      below: "",
      problems,
      needed: (at) => (needed.has(at) ? (words.needed[at] ?? words.neededElse) : undefined),
    },
  );
  const body: Body = {
    ...read,
    name: draft.name.trim() || "?",
    max_depth_m: read.max_depth_m ?? 1,
    species: draft.species,
    hypsography: areas.rows,
    rules,
    rules_read_on: new Date().toISOString().slice(0, 10),
    places,
  };
  return { body, problems };
}
