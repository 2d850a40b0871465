/** Asking the server where the flies are: the bare path at once, its band a moment later. */

import { keepPreviousData, useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef } from "react";
import { ApiError, api, need, type Problem, type Schemas } from "../../api/client";
import { routes } from "../../api/routes";
import { again } from "../../lib/again";
import type { Answer, RigDoc } from "./rig";

function useRun(rig: RigDoc | null, band: boolean, enabled: boolean) {
  return routes.useQuery(
    "post",
    "/api/thread/simulate",
    { body: { ...(rig as RigDoc), band } },
    {
      enabled: rig !== null && enabled,
      placeholderData: keepPreviousData,
      staleTime: Number.POSITIVE_INFINITY,
      gcTime: 60_000,
      retry: false,
    },
  );
}

export interface Thread {
  answer: Answer | undefined;
  banded: boolean;
  busy: boolean;
  problems: Problem[];
  error: unknown;
}

/** The path of a rig; the last good one stays while a new one is worked out or a fault is mended. */
export function useThread(rig: RigDoc | null): Thread {
  const bare = useRun(rig, false, true);
  const full = useRun(rig, true, bare.isSuccess && !bare.isPlaceholderData);
  const banded = full.isSuccess && !full.isPlaceholderData;
  const error = bare.error ?? full.error;
  const good = useRef<Answer | undefined>(undefined);
  const fresh = banded ? full.data : bare.data;
  if (fresh) good.current = fresh;
  if (rig === null) good.current = undefined;
  return {
    answer: fresh ?? good.current,
    banded,
    busy: bare.isFetching || full.isFetching,
    problems: error instanceof ApiError ? error.problems : [],
    error,
  };
}

export function useTable() {
  return useMutation({
    mutationFn: (body: Schemas["TableRequest"]) => need(api.POST("/api/thread/table", { body })),
  });
}

export function useBuild() {
  return useMutation({
    mutationFn: (build: Schemas["FlyBuild"]) => need(api.POST("/api/thread/fly", { body: { build } })),
  });
}

export function useLeader() {
  return useMutation({
    mutationFn: (body: Schemas["LeaderRequest"]) => need(api.POST("/api/thread/leader", { body })),
  });
}

export function useFloatCheck(rig: RigDoc, enabled: boolean) {
  return routes.useQuery(
    "post",
    "/api/thread/float",
    { body: rig },
    {
      enabled,
      placeholderData: keepPreviousData,
      retry: false,
    },
  );
}

export function useCalibrate() {
  return useMutation({
    mutationFn: (body: Schemas["CalibrateRequest"]) => need(api.POST("/api/thread/calibrate", { body })),
  });
}

export function useCheck() {
  return useMutation({
    mutationFn: (body: Schemas["CheckRequest"]) => need(api.POST("/api/thread/check", { body })),
  });
}

export function useRigs() {
  return routes.useQuery("get", "/api/thread/rigs");
}

export function usePutRig() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, body }: { id: string; body: Schemas["RigBody"] }) =>
      need(api.PUT("/api/thread/rigs/{rig_id}", { params: { path: { rig_id: id } }, body })),
    onSuccess: () => again(client, "/api/thread/rigs"),
  });
}

export function useDeleteRig() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: string) =>
      need(api.DELETE("/api/thread/rigs/{rig_id}", { params: { path: { rig_id: id } } })),
    onSuccess: () => again(client, "/api/thread/rigs"),
  });
}
