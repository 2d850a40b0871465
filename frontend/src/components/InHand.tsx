import { lazy, Suspense } from "react";
import { useReading } from "../lib/reading";
import type { Water } from "../lib/waters";

// Seldom shown: fetched when it is.
const rare = () => import("./NotToday");
const AsideNotice = lazy(() => rare().then((found) => ({ default: found.AsideNotice })));
const OlderNotice = lazy(() => rare().then((found) => ({ default: found.OlderNotice })));

/** Says what is in hand, or was set aside, where that is not simply today's reading. */
export function InHand({ water }: { water: Water }) {
  const { aside, older } = useReading("aside", "older");
  return (
    <Suspense>
      {aside && <AsideNotice aside={aside} />}
      {older && <OlderNotice water={water} older={older} />}
    </Suspense>
  );
}
