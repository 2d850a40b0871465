import { load, save } from "./store";

export type Theme = "day" | "dusk" | "glare";

export function currentTheme(): Theme {
  return load<Theme>("theme", "day");
}

export function showTheme(theme: Theme): void {
  document.documentElement.dataset.theme = theme;
  save("theme", theme);
}
