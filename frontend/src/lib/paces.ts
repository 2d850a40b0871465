/** The paces of a retrieve in an angler's words, the same on every page. */
import type { Schemas } from "../api/client";

export type Pace = NonNullable<Schemas["SpellBody"]["pace"]>;

export const PACES: { value: Pace; label: string }[] = [
  { value: "static", label: "Leave it still" },
  { value: "twitch", label: "Still, with twitches" },
  { value: "quarter-swing", label: "Across and swing" },
  { value: "slow-hand-twist", label: "Slow hand twist" },
  { value: "twist-stop", label: "Twist and stop" },
  { value: "hand-twist", label: "Hand twist" },
  { value: "strip-pause", label: "Strip and rest" },
  { value: "lift-drop", label: "Lift and drop" },
  { value: "sink-pull", label: "Sink, then pull" },
  { value: "long-pull", label: "Long pulls" },
  { value: "roly-poly", label: "Two-handed, fast" },
  { value: "drift", label: "Leave it to the drift" },
];

export function paceText(pace: string | null | undefined): string {
  return PACES.find((one) => one.value === pace)?.label ?? "";
}
