/** Which outings are asked for: in the address, so that they can be shared and the back button works. */
import { useSearchParams } from "wouter";
import type { Filter } from "../../lib/log";
import { useWater } from "../../lib/waters";

type Named = "only" | "month" | "t" | "wind" | "q";

export function useFilter() {
  const [search, setSearch] = useSearchParams();
  const { water } = useWater();
  const only = search.get("only") === "1";
  const number = (name: string) => (search.get(name) ? Number(search.get(name)) : undefined);
  const filter: Filter = {
    water_id: only && water ? water.id : undefined,
    month: number("month"),
    surface_c: number("t"),
    wind: (search.get("wind") || undefined) as Filter["wind"],
    q: search.get("q") || undefined,
  };
  const set = (name: Named, value: string) => {
    const next = new URLSearchParams(search);
    if (value) next.set(name, value);
    else next.delete(name);
    setSearch(next);
  };
  const some = Object.values(filter).some((value) => value !== undefined);
  const clear = () => {
    const next = new URLSearchParams(search);
    for (const name of ["only", "month", "t", "wind", "q"]) next.delete(name);
    setSearch(next);
  };
  return { filter, only, set, clear, some };
}
