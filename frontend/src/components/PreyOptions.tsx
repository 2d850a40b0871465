/** The prey a fish may have in it, to choose from. */
import { useCatalogue } from "../lib/catalogue";
import { useReader } from "../lib/session";

export function PreyOptions() {
  const { say } = useReader();
  const prey = useCatalogue().data?.prey ?? [];
  return (
    <>
      <option value="">–</option>
      {prey
        .filter((one) => one.weather !== "stocked")
        .map((one) => (
          <option key={one.key} value={one.key}>
            {say(one.name)}
          </option>
        ))}
    </>
  );
}
