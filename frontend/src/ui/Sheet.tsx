/** A sheet over the page; what it is made of is fetched when the first page stands, and no page waits for it. */
import { lazy, Suspense } from "react";
import type { SheetProps } from "./SheetBody";

const fetched = () => import("./SheetBody");
const SheetBody = lazy(fetched);

/** Fetch what sheets are made of while there is signal, so that they open without it. */
export function fetchSheets() {
  // Without signal nothing comes; it is fetched when a sheet is opened.
  fetched().catch(() => {});
}

export function Sheet(props: SheetProps) {
  return (
    <Suspense>
      <SheetBody {...props} />
    </Suspense>
  );
}
