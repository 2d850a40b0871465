/** What the reading in hand means, as the server understands it. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, need, type Schemas } from "../api/client";
import { useReading } from "./reading";

export type Meaning = Schemas["ReadAnswer"];

/** The meaning of the reading in hand; the last good one while a reading needs mending. */
export function useMeaning(waterId: string) {
  const { body, mending } = useReading();
  const { place, reading, sightings, samples, when } = body;
  const text = JSON.stringify({ when, place, reading, sightings, samples });
  const [settled, setSettled] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(text), 250);
    return () => clearTimeout(timer);
  }, [text]);
  return useQuery({
    queryKey: ["read", waterId, settled],
    queryFn: ({ signal }) =>
      need(
        api.POST("/api/waters/{water_id}/read", {
          params: { path: { water_id: waterId } },
          body: JSON.parse(settled) as Schemas["ReadBody"],
          signal,
        }),
      ),
    enabled: !mending && settled === text,
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
}
