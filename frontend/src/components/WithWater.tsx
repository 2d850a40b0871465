/** A page that needs a water in hand: says so kindly when there is none. */
import type { ReactNode } from "react";
import { Navigate } from "react-router";
import { ReadingProvider } from "../lib/reading";
import { useWater, type Water } from "../lib/waters";
import { Empty, Failed, Loading } from "./states";
import { words } from "./strings";

interface Props {
  /** False on pages that show nothing of the plan: then none is asked for. */
  planned?: boolean;
  children: (water: Water) => ReactNode;
}

export function WithWater({ planned = true, children }: Props) {
  const { water, list, unknown, isPending, isError, error, refetch } = useWater();
  if (isPending) return <Loading what={words.fetchingWaters} />;
  if (isError) return <Failed error={error} again={() => void refetch()} />;
  if (list.length === 0) return <Navigate to="/start" replace />;
  if (!water || unknown) return <Empty title={words.unknownWater} />;
  return (
    <ReadingProvider key={water.id} water={water} planned={planned}>
      {children(water)}
    </ReadingProvider>
  );
}
