/** The weather by hour for a water: kept on the server, fetched on demand. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, need } from "../api/client";
import { routes } from "../api/routes";
import { again, answered } from "./again";

const weatherOf = (water_id: string) =>
  routes.queryOptions("get", "/api/waters/{water_id}/weather", { params: { path: { water_id } } });

export function useWeather(waterId: string) {
  return useQuery(weatherOf(waterId));
}

export function useFetchWeather(waterId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () =>
      need(api.POST("/api/waters/{water_id}/weather/fetch", { params: { path: { water_id: waterId } } })),
    onSuccess: (forecast) => {
      answered(client, weatherOf(waterId).queryKey, forecast);
      void again(client, ["/api/waters/{water_id}/read", { water_id: waterId }]);
    },
  });
}
