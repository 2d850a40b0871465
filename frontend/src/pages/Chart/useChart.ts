/** The chart of a water and the ways to change it. */

import { keepPreviousData, useMutation, useQueryClient } from "@tanstack/react-query";
import { api, need, type Schemas } from "../../api/client";
import { routes } from "../../api/routes";
import { again, PLANS } from "../../lib/again";
import { asFile } from "../../lib/asFile";
import type { Water } from "../../lib/waters";

export type Chart = Schemas["ChartOut"];
export type MapFile = Schemas["MapFileOut"];

export function useChart(waterId: string, windFrom: number | null) {
  return routes.useQuery(
    "get",
    "/api/waters/{water_id}/chart",
    { params: { path: { water_id: waterId }, query: windFrom === null ? {} : { wind_from_deg: windFrom } } },
    { placeholderData: keepPreviousData },
  );
}

function useAgain(waterId: string) {
  const client = useQueryClient();
  const path = { water_id: waterId };
  return () =>
    void again(
      client,
      ["/api/waters/{water_id}/chart", path],
      ["/api/waters/{water_id}/read", path],
      ...PLANS,
    );
}

export function usePutOutline(waterId: string) {
  const asked = useAgain(waterId);
  return useMutation({
    mutationFn: (rings: Chart["rings"]) =>
      need(
        api.PUT("/api/waters/{water_id}/chart/outline", {
          params: { path: { water_id: waterId } },
          body: { rings },
        }),
      ),
    onSuccess: asked,
  });
}

export function usePutSounding(waterId: string) {
  const asked = useAgain(waterId);
  return useMutation({
    mutationFn: ({ id, body }: { id: string; body: Schemas["SoundingBody"] }) =>
      need(
        api.PUT("/api/waters/{water_id}/soundings/{sounding_id}", {
          params: { path: { water_id: waterId, sounding_id: id } },
          body,
        }),
      ),
    onSuccess: asked,
  });
}

export function useDeleteSounding(waterId: string) {
  const asked = useAgain(waterId);
  return useMutation({
    mutationFn: (id: string) =>
      need(
        api.DELETE("/api/waters/{water_id}/soundings/{sounding_id}", {
          params: { path: { water_id: waterId, sounding_id: id } },
        }),
      ),
    onSuccess: asked,
  });
}

export function useDeleteLine(waterId: string) {
  const asked = useAgain(waterId);
  return useMutation({
    mutationFn: (id: string) =>
      need(
        api.DELETE("/api/waters/{water_id}/lines/{line_id}", {
          params: { path: { water_id: waterId, line_id: id } },
        }),
      ),
    onSuccess: asked,
  });
}

export function useReadMap(waterId: string) {
  return useMutation({
    mutationFn: (file: File) =>
      need(
        api.POST("/api/waters/{water_id}/chart/file", {
          params: { path: { water_id: waterId } },
          ...asFile(file),
        }),
      ),
  });
}

const BATCH = 200;

interface Wanted {
  outline: boolean;
  soundings: boolean;
  places: boolean;
}

/** Take the wanted parts of a map file; UUIDs made once make a second press harmless. */
export function useTakeMap(water: Water) {
  const asked = useAgain(water.id);
  const client = useQueryClient();
  return useMutation({
    mutationFn: async ({ map, ids, wanted }: { map: MapFile; ids: string[]; wanted: Wanted }) => {
      const path = { water_id: water.id };
      if (wanted.outline && map.rings.length > 0)
        await need(
          api.PUT("/api/waters/{water_id}/chart/outline", { params: { path }, body: { rings: map.rings } }),
        );
      if (wanted.places) {
        const at = new Map(map.places.map((p) => [p.name, p.position]));
        const { id: _id, revision: _revision, ...body } = water;
        const places = body.places.map((p) => {
          const found = at.get(p.name);
          return found ? { ...p, longitude_deg: found[0] ?? null, latitude_deg: found[1] ?? null } : p;
        });
        await need(api.PUT("/api/waters/{water_id}", { params: { path }, body: { ...body, places } }));
      }
      if (!wanted.soundings) return;
      const soundings = map.soundings.map((s, i) => ({
        id: ids[i] ?? crypto.randomUUID(),
        sounding_m: s.sounding_m,
        method: (s.method ?? "chart") as Schemas["MapSoundingIn"]["method"],
        longitude_deg: s.position[0] ?? 0,
        latitude_deg: s.position[1] ?? 0,
      }));
      for (let i = 0; i < soundings.length; i += BATCH)
        await need(
          api.POST("/api/waters/{water_id}/soundings", {
            params: { path },
            body: { taken_at: new Date().toISOString(), soundings: soundings.slice(i, i + BATCH) },
          }),
        );
    },
    onSuccess: () => {
      asked();
      void again(client, "/api/waters");
    },
  });
}
