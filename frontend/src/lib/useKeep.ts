/** Sends the reading to the server once it has stood for a while and can be read. */
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, need } from "../api/client";
import { again } from "./again";
import type { Draft, PlanBody } from "./draft";
import { TEN_MINUTES_MS } from "./time";
import { useSettled } from "./useSettled";
import type { Water } from "./waters";

/** "ahead": for an hour to come, which is no reading of the water yet. */
export type Saved = "typing" | "saved" | "kept here" | "ahead";

export function useKeep(
  water: Water,
  draft: Draft,
  body: PlanBody,
  ready: boolean,
  onSaved: () => void,
): Saved {
  const client = useQueryClient();
  const [state, setState] = useState<Saved>("saved");
  const sent = useRef("");
  const settled = useSettled(body, 1500);
  useEffect(() => {
    const text = JSON.stringify([settled.place, settled.reading, settled.sightings, settled.samples]);
    // Only what stands on the page now is sent: never a body from before the stored reading arrived.
    if (!ready || settled !== body || text === sent.current) return;
    if (new Date(settled.when).getTime() > Date.now() + TEN_MINUTES_MS) return setState("ahead");
    const path = { water_id: water.id, reading_id: draft.id };
    // To the second it was last touched: the ten minutes a plan is of would put it level with a partner's.
    const taken_at = draft.when === "" && draft.at !== "" ? draft.at : settled.when;
    const { place, reading, sightings, samples } = settled;
    setState("typing");
    need(
      api.PUT("/api/waters/{water_id}/readings/{reading_id}", {
        params: { path },
        body: { place, reading, sightings, samples, taken_at },
      }),
    )
      .then(() => {
        sent.current = text;
        setState("saved");
        onSaved();
        void again(
          client,
          ["/api/waters/{water_id}/season", { water_id: water.id }],
          ["/api/waters/{water_id}/readings/{reading_id}", path],
        );
      })
      .catch(() => setState("kept here"));
  }, [settled, body, ready, water.id, draft.id, draft.at, draft.when, onSaved, client]);
  return state;
}
