/** What the factors of a belief are called. */
export const FACTORS: Record<string, string> = {
  temperature: "Temperature",
  oxygen: "Oxygen",
  light: "Light",
  food: "Food",
  rises: "Rises",
  season: "Season",
  stocking: "Stocking",
  wind: "Wind",
  "own-log": "Your log",
  found: "Depth found",
};
