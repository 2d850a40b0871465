/** The angler's own words and units in the sentences the server sends. */
import {
  type DepthUnit,
  depthTo,
  pressureTo,
  type TemperatureUnit,
  temperatureTo,
  WIND_LABELS,
  type WindUnit,
  windTo,
} from "./units";

export interface Voice {
  vocabulary: "gb" | "na";
  depth: DepthUnit;
  temperature: TemperatureUnit;
  wind: WindUnit;
}

// Stored term → the two vocabularies. Longer terms first, so that they are not cut up.
const TERMS: [RegExp, string, string][] = [
  [/chironomid emerger and adult/gi, "buzzer emerger and adult", "chironomid emerger and adult"],
  [/chironomid pupa/gi, "buzzer pupa", "chironomid pupa"],
  [/chironomid larva/gi, "bloodworm", "bloodworm"],
  [/chironomids/gi, "buzzers", "chironomids"],
  [/\bscud\b/gi, "freshwater shrimp", "scud"],
  [/water boatman/gi, "corixa", "boatman"],
  [/\ba float\b/gi, "a bung", "an indicator"],
  [/\bfloats\b/gi, "bungs", "indicators"],
  [/\bfloat\b/gi, "bung", "indicator"],
  [/hand twist/gi, "figure of eight", "hand twist"],
  [/\bstrips\b/gi, "pulls", "strips"],
  [/\bstrip\b/gi, "pull", "strip"],
  [/caddis/gi, "sedge", "caddis"],
  [/\bplucks\b/gi, "plucks", "bumps"],
  [/\bpluck\b/gi, "pluck", "bump"],
];

function matchCase(found: string, word: string): string {
  return /^[A-Z]/.test(found) ? word.charAt(0).toUpperCase() + word.slice(1) : word;
}

function inWords(vocabulary: Voice["vocabulary"], text: string): string {
  return TERMS.reduce(
    (sentence, [term, gb, na]) =>
      sentence.replace(term, (found) => matchCase(found, vocabulary === "gb" ? gb : na)),
    text,
  );
}

const NUMBER = "(\\d+(?:\\.\\d+)?)";
const QUANTITY = new RegExp(`${NUMBER}(?: (to|and) ${NUMBER})? (cm|m/s|mg/L|hPa|m|°C)(?![a-zA-Z/])`, "g");

function converted(voice: Voice, value: string, unit: string): [string, string] {
  const number = Number(value);
  const digits = value.includes(".") ? 1 : 0;
  if (unit === "m" && voice.depth === "ft") {
    const feet = depthTo("ft", number);
    return [feet < 3 ? String(Number(feet.toFixed(1))) : feet.toFixed(0), "ft"];
  }
  if (unit === "cm" && voice.depth === "ft") return [String(Math.max(1, Math.round(number / 2.54))), "in"];
  if (unit === "hPa" && voice.depth === "ft") return [pressureTo("ft", number).toFixed(1), "inHg"];
  if (unit === "°C" && voice.temperature === "f") return [temperatureTo("f", number).toFixed(0), "°F"];
  if (unit === "m/s" && voice.wind !== "m_s")
    return [windTo(voice.wind, number).toFixed(0), WIND_LABELS[voice.wind]];
  return [number.toFixed(digits), unit];
}

function inUnits(voice: Voice, text: string): string {
  return text.replace(
    QUANTITY,
    (_whole, first: string, joint: string | undefined, second: string | undefined, unit: string) => {
      const [a, shown] = converted(voice, first, unit);
      return second && joint
        ? `${a} ${joint} ${converted(voice, second, unit)[0]} ${shown}`
        : `${a} ${shown}`;
    },
  );
}

/** A sentence of ours as this angler reads it. A number followed by a unit is a quantity and is converted. */
export function say(voice: Voice, text: string): string {
  return inWords(voice.vocabulary, inUnits(voice, text));
}
