/** The guided reading: which depth is next, by the server; without signal, down the cord's knots as told before. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, need } from "../../api/client";
import type { Draft } from "../../lib/draft";
import { depthFrom, FOOT_M, temperatureFrom, typedNumber } from "../../lib/units";
import { words } from "./strings";

interface Next {
  depthM: number | null;
  why: string;
}

type Read = Pick<Draft, "rows" | "depthUnit" | "temperatureUnit">;

export function readPoints(draft: Read): { depth_m: number; temperature_c: number }[] {
  return draft.rows.flatMap((row) => {
    const z = typedNumber(row.depth);
    const t = typedNumber(row.temperature);
    if (z === null || t === null || Number.isNaN(z) || Number.isNaN(t)) return [];
    return [
      { depth_m: depthFrom(draft.depthUnit, z), temperature_c: temperatureFrom(draft.temperatureUnit, t) },
    ];
  });
}

/** The next knot not yet read, on a first pass told before the signal went. */
function nextKnot(pass: number[], points: { depth_m: number }[], stepM: number): Next {
  const deepest = Math.max(-1, ...points.map((p) => p.depth_m));
  const depth = pass.find((d) => d > deepest + stepM / 4);
  return depth === undefined
    ? { depthM: null, why: words.enoughOffline }
    : { depthM: depth, why: words.knotOffline };
}

export function useGuide(draft: Read, bedM: number) {
  const points = readPoints(draft);
  const stepM = draft.depthUnit === "ft" ? 5 * FOOT_M : 1;
  const [pass, setPass] = useState<number[]>([]);
  const text = JSON.stringify([points, bedM, stepM]);
  const asked = useQuery({
    queryKey: ["next-depth", text],
    queryFn: async () => {
      const found = await need(
        api.POST("/api/read/next-depth", { body: { points, bed_m: bedM, step_m: stepM } }),
      );
      setPass(found.first_pass_m);
      return found;
    },
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (asked.data) return { depthM: asked.data.depth_m, why: asked.data.why, waiting: false, offline: false };
  if (asked.isPending) return { depthM: null, why: "", waiting: true, offline: false };
  const knots =
    pass.length > 0 ? pass : Array.from({ length: Math.floor(bedM / stepM) + 1 }, (_, i) => i * stepM);
  return { ...nextKnot(knots, points, stepM), waiting: false, offline: true };
}
