/** Units people see. The API speaks SI; nothing here decides anything about fishing. */
export type Metres = number;
export type DepthUnit = "m" | "ft";
export type TemperatureUnit = "c" | "f";
export type WindUnit = "m_s" | "km_h" | "mph" | "kn" | "bft";

export const FOOT_M = 0.3048;
const WIND_M_S: Record<Exclude<WindUnit, "bft">, number> = {
  m_s: 1,
  km_h: 1 / 3.6,
  mph: 0.44704,
  kn: 1852 / 3600,
};
// Lower limits of Beaufort forces 1 to 12 in m/s (WMO table 1100).
const BEAUFORT_M_S = [0.3, 1.6, 3.4, 5.5, 8, 10.8, 13.9, 17.2, 20.8, 24.5, 28.5, 32.7];

export const WIND_LABELS: Record<WindUnit, string> = {
  m_s: "m/s",
  km_h: "km/h",
  mph: "mph",
  kn: "kn",
  bft: "Bft",
};

/** A fish's length: centimetres beside metres, inches beside feet. */
export function fishText(unit: DepthUnit, metres: Metres): string {
  return unit === "m" ? `${(metres * 100).toFixed(0)} cm` : `${(metres / (FOOT_M / 12)).toFixed(1)} in`;
}

export function depthTo(unit: DepthUnit, metres: Metres): number {
  return unit === "m" ? metres : metres / FOOT_M;
}

export function depthFrom(unit: DepthUnit, value: number): Metres {
  return unit === "m" ? value : value * FOOT_M;
}

export function temperatureTo(unit: TemperatureUnit, celsius: number): number {
  return unit === "c" ? celsius : (celsius * 9) / 5 + 32;
}

export function temperatureFrom(unit: TemperatureUnit, value: number): number {
  return unit === "c" ? value : ((value - 32) * 5) / 9;
}

/** Wind in m/s; a Beaufort force stands for the middle of its range. */
export function windFrom(unit: WindUnit, value: number): number {
  if (unit !== "bft") return value * WIND_M_S[unit];
  if (value <= 0) return 0;
  const force = Math.min(Math.round(value), 12);
  const low = BEAUFORT_M_S[force - 1] ?? 0;
  const next = BEAUFORT_M_S[force];
  return (low + (next === undefined ? low : next - 0.1)) / 2;
}

export function windTo(unit: WindUnit, metresPerSecond: number): number {
  if (unit !== "bft") return metresPerSecond / WIND_M_S[unit];
  const tenths = Math.floor(10 * metresPerSecond + 0.5) / 10;
  return BEAUFORT_M_S.filter((limit) => tenths >= limit).length;
}

/** Conventional inch of mercury at 0 °C (NIST SP 811, appendix B). */
const HPA_PER_INHG = 33.86389;

/** Air pressure as a barometer beside that depth unit shows it: inches of mercury with feet. */
export function pressureTo(unit: DepthUnit, hPa: number): number {
  return unit === "m" ? hPa : hPa / HPA_PER_INHG;
}

export function pressureFrom(unit: DepthUnit, value: number): number {
  return unit === "m" ? value : value * HPA_PER_INHG;
}

function plain(value: number, digits: number): string {
  return String(Number(value.toFixed(digits)));
}

export function depthText(unit: DepthUnit, metres: Metres, digits = 1): string {
  const value = depthTo(unit, metres);
  const shown = unit === "m" ? digits : value < 3 ? 1 : digits - 1;
  return `${value.toFixed(Math.max(0, shown))} ${unit}`;
}

/** From where to where; one depth where both read the same. */
export function bandText(unit: DepthUnit, top: Metres, bottom: Metres): string {
  const digits = unit === "m" || depthTo(unit, bottom - top) < 2 ? 1 : 0;
  const [from, to] = [top, bottom].map((end) => depthTo(unit, end).toFixed(digits));
  return from === to ? `${to} ${unit}` : `${from} to ${to} ${unit}`;
}

export function temperatureText(unit: TemperatureUnit, celsius: number, digits = 1): string {
  return `${temperatureTo(unit, celsius).toFixed(unit === "c" ? digits : 0)} °${unit.toUpperCase()}`;
}

/** A leader length as it is laid off: feet and inches, or metres to the centimetre. */
export function lengthText(unit: DepthUnit, metres: Metres): string {
  if (unit === "m") return `${metres.toFixed(2)} m`;
  const inches = Math.round(metres / (FOOT_M / 12));
  const feet = Math.floor(inches / 12);
  return inches % 12 === 0 ? `${feet} ft` : `${feet} ft ${inches % 12} in`;
}

/** A number as typed: decimal point or comma; null for nothing, NaN for what is no number. */
export function typedNumber(text: string): number | null {
  const trimmed = text.trim().replace(",", ".");
  if (trimmed === "") return null;
  return /^[+-]?(\d+\.?\d*|\.\d+)$/.test(trimmed) ? Number(trimmed) : Number.NaN;
}

/** A stored number put back into a box. */
export function boxText(value: number, digits = 2): string {
  return plain(value, digits);
}

export const POINTS = ["N", "NE", "E", "SE", "S", "SW", "W", "NW"];

/** The nearest of the eight compass points to a bearing. */
export function pointOf(degrees: number): string {
  return POINTS[Math.round((((degrees % 360) + 360) % 360) / 45) % 8] ?? "N";
}

const HECTARE_M2 = 10_000;
const ACRE_M2 = 4046.8564224;

/** An area as people say it: hectares beside metres, acres beside feet. */
export function areaTo(unit: DepthUnit, squareMetres: number): number {
  return squareMetres / (unit === "m" ? HECTARE_M2 : ACRE_M2);
}

export function areaFrom(unit: DepthUnit, value: number): number {
  return value * (unit === "m" ? HECTARE_M2 : ACRE_M2);
}

export function areaText(unit: DepthUnit, squareMetres: number): string {
  const value = areaTo(unit, squareMetres);
  return `${value.toFixed(value < 10 ? 1 : 0)} ${unit === "m" ? "ha" : "acres"}`;
}

/** A distance over the ground: metres or feet near by, kilometres or miles far off. */
export function distanceText(unit: DepthUnit, metres: Metres): string {
  if (unit === "m") return metres < 950 ? `${metres.toFixed(0)} m` : `${(metres / 1000).toFixed(2)} km`;
  const miles = metres / 1609.344;
  return miles < 0.25 ? `${(metres / FOOT_M).toFixed(0)} ft` : `${miles.toFixed(2)} mi`;
}
