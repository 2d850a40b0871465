/** Longitude and latitude to the picture: flat, true to scale in the middle of a lake. */
type LonLat = readonly number[];

const METRES_PER_DEG = 111_195;

export interface Projection {
  width: number;
  height: number;
  /** Metres to one unit of the picture. */
  metres: number;
  x: (p: LonLat) => number;
  y: (p: LonLat) => number;
  back: (x: number, y: number) => [number, number];
}

/** Fitted into a picture `width` wide and at most `tallest` high; `top` is kept free for the wind's arrow. */
export function project(
  points: LonLat[],
  width: number,
  tallest: number,
  margin: number,
  top: number,
): Projection | null {
  if (points.length === 0) return null;
  const lons = points.map((p) => p[0] ?? 0);
  const lats = points.map((p) => p[1] ?? 0);
  const west = Math.min(...lons);
  const north = Math.max(...lats);
  const south = Math.min(...lats);
  const squeeze = Math.cos((((north + south) / 2) * Math.PI) / 180);
  const wide = Math.max((Math.max(...lons) - west) * squeeze, 1e-5);
  const high = Math.max(north - south, 1e-5);
  const scale = Math.min((width - 2 * margin) / wide, (tallest - margin - top) / high);
  const left = (width - wide * scale) / 2;
  return {
    width,
    height: high * scale + margin + top,
    metres: METRES_PER_DEG / scale,
    x: (p) => left + ((p[0] ?? 0) - west) * squeeze * scale,
    y: (p) => top + (north - (p[1] ?? 0)) * scale,
    back: (x, y) => [west + (x - left) / (squeeze * scale), north - (y - top) / scale],
  };
}

/** A round length for the scale bar, near `wanted` metres. */
export function roundLength(wanted: number): number {
  const power = 10 ** Math.floor(Math.log10(Math.max(wanted, 1)));
  return ([5, 2, 1].find((n) => n * power <= wanted) ?? 1) * power;
}
