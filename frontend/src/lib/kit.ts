/** Lines and flies: what the server has, and the ways to change it. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, need, type Schemas } from "../api/client";

/** A fly in the box as it is written back: without what the server computes. */
export function flyBody(fly: Schemas["FlyOut"]): Schemas["FlyBody"] {
  const {
    id: _i,
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
  return useQuery({ queryKey: ["kit"], queryFn: () => need(api.GET("/api/kit")) });
}

function useAgain() {
  const client = useQueryClient();
  return () => {
    client.invalidateQueries({ queryKey: ["kit"] });
    client.invalidateQueries({ queryKey: ["plan"] });
  };
}

export function usePutLine() {
  const again = useAgain();
  return useMutation({
    mutationFn: ({ id, body }: { id: string; body: Schemas["LineBody"] }) =>
      need(api.PUT("/api/kit/lines/{line_id}", { params: { path: { line_id: id } }, body })),
    onSuccess: again,
  });
}

export function useDeleteLine() {
  const again = useAgain();
  return useMutation({
    mutationFn: (id: string) =>
      need(api.DELETE("/api/kit/lines/{line_id}", { params: { path: { line_id: id } } })),
    onSuccess: again,
  });
}

export function usePutFly() {
  const again = useAgain();
  return useMutation({
    mutationFn: ({ id, body }: { id: string; body: Schemas["FlyBody"] }) =>
      need(api.PUT("/api/kit/flies/{fly_id}", { params: { path: { fly_id: id } }, body })),
    onSuccess: again,
  });
}

export function useDeleteFly() {
  const again = useAgain();
  return useMutation({
    mutationFn: (id: string) =>
      need(api.DELETE("/api/kit/flies/{fly_id}", { params: { path: { fly_id: id } } })),
    onSuccess: again,
  });
}

export function useAddStarter() {
  const again = useAgain();
  return useMutation({
    mutationFn: (keys: string[]) => need(api.POST("/api/kit/starter", { body: { keys } })),
    onSuccess: again,
  });
}
