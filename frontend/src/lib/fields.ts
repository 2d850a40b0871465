/** Forms as tables: each box says what of the body it holds, in which unit it is typed, and how it is read back into SI. */
import type { Problem } from "../api/client";
import {
  areaFrom,
  areaTo,
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

/** The units that a form is typed in. */
export interface Units {
  depth: DepthUnit;
  temperature: TemperatureUnit;
  wind: WindUnit;
}

export const unitsOf = (settings: {
  depth_unit: DepthUnit;
  temperature_unit: TemperatureUnit;
  wind_unit: WindUnit;
}): Units => ({
  depth: settings.depth_unit,
  temperature: settings.temperature_unit,
  wind: settings.wind_unit,
});

type Turn = (unit: never, value: number) => number;
const same: Turn = (_unit, value) => value;

/** By which unit it is typed, there and back, and to how many digits beside metres and beside feet. */
const QUANTITIES = {
  /** A depth, or a length beside it. */
  depth: ["depth", depthTo, depthFrom, 2, 1],
  /** A distance in whole metres or feet. */
  distance: ["depth", depthTo, depthFrom, 0, 0],
  temperature: ["temperature", temperatureTo, temperatureFrom, 1, 1],
  wind: ["wind", windTo, windFrom, 1, 1],
  pressure: ["depth", pressureTo, pressureFrom, 0, 2],
  area: ["depth", areaTo, areaFrom, 2, 2],
  /** The same in every unit, to the tenth. */
  tenths: ["depth", same, same, 1, 1],
  plain: ["depth", same, same, 8, 8],
} satisfies Record<string, [by: keyof Units, to: Turn, from: Turn, metric: number, feet: number]>;

type Quantity = keyof typeof QUANTITIES;

/** A value as it is typed; empty where there is none. */
export function amountText(quantity: Quantity, units: Units, value: number | null | undefined): string {
  const [by, to, , metric, feet] = QUANTITIES[quantity];
  if (value === null || value === undefined) return "";
  return boxText((to as Turn)(units[by] as never, value), units.depth === "m" ? metric : feet);
}

function typedAmount(quantity: Quantity, units: Units, text: string): number | null {
  const [by, , from] = QUANTITIES[quantity];
  const value = typedNumber(text);
  return value === null ? null : (from as Turn)(units[by] as never, value);
}

export interface Box<S> {
  /** Its name in the body. */
  at: string;
  /** What it shows where nothing is typed. */
  blank: S;
  show(value: unknown, units: Units): S;
  /** Its value in the body; NaN where a number is wanted and none was typed. */
  read(shown: S, units: Units): unknown;
}

type Table = Record<string, Box<unknown>>;
/** What the boxes of a table show. */
export type Shown<T extends Table> = { [K in keyof T]: T[K] extends Box<infer S> ? S : never };

/** The kinds of boxes for a body of this type. */
export function boxesOf<B>() {
  type At = keyof B & string;
  return {
    /** A number typed in the angler's unit; empty where there is none. */
    amount: (at: At, quantity: Quantity): Box<string> => ({
      at,
      blank: "",
      show: (value, units) => amountText(quantity, units, value as number | null | undefined),
      read: (text, units) => typedAmount(quantity, units, text),
    }),
    /** A number that is nought where nothing is typed. */
    orNought: (at: At): Box<string> => ({
      at,
      blank: "",
      show: (value) => (value ? String(value) : ""),
      read: (text) => {
        const value = typedNumber(text) ?? 0;
        return value >= 0 ? value : Number.NaN;
      },
    }),
    /** One of several numbers. */
    step: (at: At): Box<string> => ({
      at,
      blank: "",
      show: (value) => (value === null || value === undefined ? "" : String(value)),
      read: (text) => (text === "" ? null : Number(text)),
    }),
    /** One of several words; "" for none of them. */
    choice: <W extends string>(at: At, blank: W | "" = ""): Box<W | ""> => ({
      at,
      blank,
      show: (value) => (value as W | null | undefined) ?? blank,
      read: (word) => (word === "" ? null : word),
    }),
    /** One of several words, always. */
    word: <W extends string>(at: At, blank: W): Box<W> => ({
      at,
      blank,
      show: (value) => (value as W | null | undefined) ?? blank,
      read: (word) => word,
    }),
    tick: (at: At): Box<boolean> => ({
      at,
      blank: false,
      show: (value) => value === true,
      read: (on) => on,
    }),
    /** A tick that says `value`; without it nothing is said. */
    says: (at: At, value: boolean): Box<boolean> => ({
      at,
      blank: false,
      show: (found) => found === value,
      read: (on) => (on ? value : null),
    }),
  };
}

const each = <T extends Table, V>(table: T, of: (box: T[keyof T], name: keyof T) => V) =>
  Object.fromEntries(Object.entries(table).map(([name, box]) => [name, of(box as T[keyof T], name)]));

export const blank = <T extends Table>(table: T) => each(table, (box) => box.blank) as Shown<T>;

/** A body put back into the boxes. */
export function show<T extends Table>(table: T, body: object, units: Units): Shown<T> {
  const values = body as Record<string, unknown>;
  return each(table, (box) => box.show(values[box.at], units)) as Shown<T>;
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

export interface Told {
  units: Units;
  /** Path of what the boxes are of, with its dot. */
  below: string;
  /** Where faults go, by the path the server would use. */
  problems: Problem[];
  /** What is said of a box that must hold something, by its name in the body. */
  needed?: (at: string) => string | undefined;
}

/** What the boxes say, by its names in the body; null, and a fault told, where a box cannot be read. */
export function readBoxes<T extends Table, B>(table: T, shown: Shown<T>, told: Told): B {
  const { units, below, problems, needed } = told;
  const read = Object.entries(table).map(([name, box]) => {
    const typed = shown[name] as unknown;
    const path = `${below}${box.at}`;
    const value = box.read(typed, units);
    if (Number.isNaN(value)) {
      problems.push(notANumber(path, String(typed)));
      return [box.at, null];
    }
    const missing = value === null ? needed?.(box.at) : undefined;
    if (missing) problems.push({ code: "missing", path, message: missing, accepted: "a number", hint: "" });
    return [box.at, value];
  });
  return Object.fromEntries(read) as B;
}
