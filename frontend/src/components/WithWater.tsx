/** A page that needs a water in hand, and of it the reading of now or an older one: says so kindly when there is none. */
import type { ReactNode } from "react";
import { Redirect, useSearchParams } from "wouter";
import { ApiError } from "../api/client";
import { routes } from "../api/routes";
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
  const { water, list, unknown, isPending, isLoadingError, error, refetch } = useWater();
  const [search] = useSearchParams();
  const older = search.get("r");
  if (isPending) return <Loading what={words.fetchingWaters} />;
  if (isLoadingError) return <Failed error={error} again={() => void refetch()} />;
  if (list.length === 0) return <Redirect to="/start" replace />;
  if (!water || unknown) return <Empty page title={words.unknownWater} />;
  const page = children(water);
  if (older)
    return (
      <OlderReading key={older} water={water} id={older} planned={planned}>
        {page}
      </OlderReading>
    );
  return (
    <ReadingProvider key={water.id} water={water} planned={planned} older={null}>
      {page}
    </ReadingProvider>
  );
}

interface OlderProps {
  water: Water;
  id: string;
  planned: boolean;
  children: ReactNode;
}

/** A stored reading opened again, to be looked at and mended. */
function OlderReading({ water, id, planned, children }: OlderProps) {
  const path = { water_id: water.id, reading_id: id };
  const forGood = { staleTime: Number.POSITIVE_INFINITY };
  const stored = routes.useQuery(
    "get",
    "/api/waters/{water_id}/readings/{reading_id}",
    { params: { path } },
    forGood,
  );
  if (stored.isPending) return <Loading what={words.fetchingReading} />;
  if (stored.error instanceof ApiError) return <Empty page title={words.unknownReading} />;
  if (stored.isLoadingError) return <Failed error={stored.error} again={() => void stored.refetch()} />;
  return (
    <ReadingProvider water={water} planned={planned} older={stored.data}>
      {children}
    </ReadingProvider>
  );
}
