/** The prey catalogue, the same for everybody: fetched once. */
import { useQuery } from "@tanstack/react-query";
import { api, need } from "../api/client";

export function useCatalogue() {
  return useQuery({
    queryKey: ["catalogue"],
    queryFn: () => need(api.GET("/api/food/catalogue")),
    staleTime: Number.POSITIVE_INFINITY,
  });
}
