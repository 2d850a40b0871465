/** The column of water on the left, one piece of work beside it; on the phone the column stands on top. */
import type { ReactNode } from "react";

export function TwoPane({ column, children }: { column: ReactNode; children: ReactNode }) {
  return (
    <div className="flex flex-1 flex-col wide:grid wide:grid-cols-[minmax(23rem,35vw)_minmax(0,1fr)]">
      <div className="h-[21rem] border-b-2 border-ink wide:sticky wide:top-14 wide:h-[calc(100dvh-3.5rem)] wide:border-r-2 wide:border-b-0">
        {column}
      </div>
      <div className="max-w-3xl px-4 py-5 wide:px-8">{children}</div>
    </div>
  );
}
