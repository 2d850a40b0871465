/** The prey catalogue, the same for everybody: fetched once. */
import { routes } from "../api/routes";

export function useCatalogue() {
  return routes.useQuery("get", "/api/food/catalogue", undefined, { staleTime: Number.POSITIVE_INFINITY });
}
