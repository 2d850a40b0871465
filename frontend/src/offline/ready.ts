/** The plan a day can begin with in the dark, kept whenever one is seen. */
import type { Schemas } from "../api/client";
import type { PlanBody } from "../lib/draft";
import { keepThing, keptThing } from "./db";

export type Preview = Schemas["PreviewOut"];
type IfBlank = Schemas["IfBlankOut"];
type Kit = Schemas["KitWaysOut"];

/** What a day can be begun with where the server cannot be asked. */
export interface ReadyDay {
  body: PlanBody;
  plan: Preview;
  read: boolean;
  /** When it was worked out, and what to do from each of its first set-ups as long as nothing takes. */
  at: string;
  ways?: IfBlank[];
  /** What the kit can do beside the plan's set-ups, for a rig tied on out there. */
  kit?: Kit;
}

const name = (water: string) => `ready:${water}`;

export async function keepReady(water: string, day: ReadyDay): Promise<void> {
  // What was worked out for an earlier plan of this water stands until it is worked out anew.
  const before = await keptReady(water);
  const { ways = before?.ways, kit = before?.kit } = day;
  await keepThing(name(water), { ...day, ways, kit }).catch(() => undefined);
}

export function keptReady(water: string): Promise<ReadyDay | undefined> {
  return keptThing<ReadyDay>(name(water));
}
