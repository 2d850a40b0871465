/** The ways of fishing in an angler's words, the same on every page. */
export const METHODS = [
  { value: "dry", label: "Dry flies" },
  { value: "nymphs", label: "Slow nymphs" },
  { value: "float", label: "Float" },
  { value: "sink-tip", label: "Sink tip" },
  { value: "intermediate", label: "Intermediate" },
  { value: "sinking", label: "Full sinking" },
] as const;

/** What a way is called; one that no plan offers is another way. */
export function methodText(method: string): string {
  return METHODS.find((one) => one.value === method)?.label ?? "Another way";
}
