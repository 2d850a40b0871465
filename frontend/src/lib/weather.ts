/** The weather by hour for a water: kept on the server, fetched on demand. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, need } from "../api/client";
import { again, answered } from "./again";

export function useWeather(waterId: string) {
  return useQuery({
    queryKey: ["weather", waterId],
    queryFn: () =>
      need(api.GET("/api/waters/{water_id}/weather", { params: { path: { water_id: waterId } } })),
  });
}

export function useFetchWeather(waterId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () =>
      need(api.POST("/api/waters/{water_id}/weather/fetch", { params: { path: { water_id: waterId } } })),
    onSuccess: (forecast) => {
      answered(client, ["weather", waterId], forecast);
      void again(client, ["read", waterId]);
    },
  });
}
