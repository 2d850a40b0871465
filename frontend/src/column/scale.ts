import { createContext, useContext } from "react";
import type { DepthUnit } from "../lib/units";
import { FOOT_M } from "../lib/units";

/** Where things are on the column: the cord's x, the surface's y, and depth to y. */
export interface ColumnScale {
  width: number;
  height: number;
  cordX: number;
  surfaceY: number;
  bedY: number;
  bedM: number;
  unit: DepthUnit;
  narrow: boolean;
  y: (depthM: number) => number;
  depth: (y: number) => number;
}

const ScaleContext = createContext<ColumnScale | null>(null);
export const ScaleProvider = ScaleContext.Provider;

export function useColumn(): ColumnScale {
  const scale = useContext(ScaleContext);
  if (!scale) throw new Error("a layer needs a column around it");
  return scale;
}

export function makeScale(width: number, height: number, bedM: number, unit: DepthUnit): ColumnScale {
  const narrow = width < 150;
  const surfaceY = narrow ? 26 : 44;
  const bedY = height - (narrow ? 22 : 34);
  const perMetre = (bedY - surfaceY) / bedM;
  return {
    width,
    height,
    cordX: narrow ? 46 : 58,
    surfaceY,
    bedY,
    bedM,
    unit,
    narrow,
    y: (d) => surfaceY + perMetre * Math.max(0, Math.min(d, bedM)),
    depth: (py) => Math.max(0, Math.min(bedM, (py - surfaceY) / perMetre)),
  };
}

/** Depths [m] of the knots: every metre or five feet, fewer in deep water; labels in the angler's unit. */
export function knotDepths(scale: ColumnScale): { depthM: number; label: string; labelled: boolean }[] {
  const base = scale.unit === "m" ? 1 : 5 * FOOT_M;
  const room = (scale.bedY - scale.surfaceY) / (scale.bedM / base);
  const every = room >= 17 ? 1 : room >= 9 ? 2 : 5;
  const result = [];
  for (let i = 1; i * base <= scale.bedM + 1e-6; i++) {
    const label = scale.unit === "m" ? `${i}` : `${i * 5}`;
    result.push({ depthM: i * base, label, labelled: i % every === 0 });
  }
  return result;
}
