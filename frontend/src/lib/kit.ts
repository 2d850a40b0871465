/** Lines and flies: what the server has, and the ways to change it. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, need, type Schemas } from "../api/client";
import { routes } from "../api/routes";
import { again, PLANS } from "./again";

/** A fly in the box as it is written back: without what the server computes. */
export function flyBody(fly: Schemas["FlyOut"]): Schemas["FlyBody"] {
  const {
    id: _i,
    revision: _r,
    submerged_g: _g,
    sink_m_s: _s,
    sink_class: _c,
    sink_hook: _h,
    own_build: _o,
    ...body
  } = fly;
  return body;
}

export function useKit() {
  return routes.useQuery("get", "/api/kit");
}

function useAgain() {
  const client = useQueryClient();
  return () => void again(client, "/api/kit", ...PLANS);
}

export function usePutLine() {
  const asked = useAgain();
  return useMutation({
    mutationFn: ({ id, body }: { id: string; body: Schemas["LineBody"] }) =>
      need(api.PUT("/api/kit/lines/{line_id}", { params: { path: { line_id: id } }, body })),
    onSuccess: asked,
  });
}

export function useDeleteLine() {
  const asked = useAgain();
  return useMutation({
    mutationFn: (id: string) =>
      need(api.DELETE("/api/kit/lines/{line_id}", { params: { path: { line_id: id } } })),
    onSuccess: asked,
  });
}

export function usePutFly() {
  const asked = useAgain();
  return useMutation({
    mutationFn: ({ id, body }: { id: string; body: Schemas["FlyBody"] }) =>
      need(api.PUT("/api/kit/flies/{fly_id}", { params: { path: { fly_id: id } }, body })),
    onSuccess: asked,
  });
}

export function useDeleteFly() {
  const asked = useAgain();
  return useMutation({
    mutationFn: (id: string) =>
      need(api.DELETE("/api/kit/flies/{fly_id}", { params: { path: { fly_id: id } } })),
    onSuccess: asked,
  });
}

export function useAddStarter() {
  const asked = useAgain();
  return useMutation({
    mutationFn: (keys: string[]) => need(api.POST("/api/kit/starter", { body: { keys } })),
    onSuccess: asked,
  });
}
