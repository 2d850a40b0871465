/** Another wind, sky, warmth, colour or hour tried beside the plan; the reading stays as it is until it is kept. */

import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { dayBody } from "../../lib/day";
import { type Draft, type PlanBody, type ReadBefore, readDraft } from "../../lib/draft";
import { previewAsked } from "../../lib/preview";
import { useReading } from "../../lib/reading";
import { useReader } from "../../lib/session";
import { boxTime, fromBoxTime } from "../../lib/time";
import { boxText, typedNumber } from "../../lib/units";
import type { Water } from "../../lib/waters";

/** What is tried; left out stays as read. `warmer` is in the reading's own degrees. */
export interface Tried {
  wind?: string;
  cloud?: string;
  clarity?: Draft["clarity"];
  warmer?: number;
  hour?: string;
}

/** The part of the draft that is another under what is tried. */
function triedPart(draft: Draft, tried: Tried, zone: string): Partial<Draft> {
  const { wind, cloud, clarity, warmer, hour } = tried;
  const day = draft.when || boxTime(new Date(), zone);
  return {
    ...(wind === undefined ? {} : { wind, gust: "", surface: "" as const }),
    ...(cloud === undefined ? {} : { cloud }),
    ...(clarity === undefined ? {} : { clarity, secchi: "" }),
    ...(hour === undefined ? {} : { when: `${day.slice(0, 10)}T${hour}:00` }),
    ...(warmer
      ? {
          rows: draft.rows.map((row) => {
            const t = typedNumber(row.temperature);
            return t === null || Number.isNaN(t) ? row : { ...row, temperature: boxText(t + warmer, 1) };
          }),
        }
      : {}),
  };
}

export function useWhatIf(water: Water) {
  const { draft, body, day, plan, planning, mending } = useReading(
    "draft",
    "body",
    "day",
    "plan",
    "planning",
    "mending",
  );
  const { settings } = useReader();
  const [tried, setTried] = useState<Tried>({});
  const zone = water.time_zone ?? "UTC";
  const part = triedPart(draft, tried, zone);
  const read = readDraft({ ...draft, ...part });
  const chosen = part.when ? fromBoxTime(part.when, zone) : null;
  const { when, place, reading, sightings, samples } = body;
  const asked: PlanBody = {
    ...body,
    ...read.body,
    ...dayBody(day),
    place,
    when: chosen?.toISOString() ?? when,
    compared_with: {
      schools: settings.schools ?? {},
      aim: day.aim,
      read: { when, place, reading, sightings, samples } as ReadBefore,
    } as PlanBody["compared_with"],
  };
  const on = Object.keys(part).length > 0;
  const ready = on && read.problems.length === 0 && !planning && !mending;
  const query = useQuery(previewAsked(asked, settings, ready));
  return {
    tried,
    on,
    part,
    problems: read.problems,
    change: (next: Tried) => setTried({ ...tried, ...next }),
    drop: () => setTried({}),
    before: plan,
    after: on ? query.data : undefined,
    working: on && query.isFetching,
    error: on ? query.error : null,
  };
}

export type WhatIf = ReturnType<typeof useWhatIf>;
