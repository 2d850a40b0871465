/** Small things kept on this device. A full or forbidden store never stops the angler. */
export function load<T>(key: string, fallback: T): T {
  try {
    const text = localStorage.getItem(key);
    return text === null ? fallback : (JSON.parse(text) as T);
  } catch {
    return fallback;
  }
}

export function save(key: string, value: unknown): boolean {
  try {
    localStorage.setItem(key, JSON.stringify(value));
    return true;
  } catch {
    return false;
  }
}

/** Where it stands how many of an angler's pictures have not arrived: read without the part that sends them. */
export const picturesKey = (owner: string) => `pictures:${owner}`;

/** The same for as long as this tab is open: what a reload must not take. */
export function loadForNow<T>(key: string, fallback: T): T {
  try {
    const text = sessionStorage.getItem(key);
    return text === null ? fallback : (JSON.parse(text) as T);
  } catch {
    return fallback;
  }
}

export function saveForNow(key: string, value: unknown) {
  try {
    if (value === null) sessionStorage.removeItem(key);
    else sessionStorage.setItem(key, JSON.stringify(value));
  } catch {
    // Not kept: a reload then starts anew.
  }
}

/** Put everything kept under these beginnings aside, where the page does not read it but a person still can. */
export function setAllAside(...beginnings: string[]): void {
  try {
    for (const key of Object.keys(localStorage).filter((k) => beginnings.some((b) => k.startsWith(b)))) {
      localStorage.setItem(`aside:${key}`, localStorage.getItem(key) ?? "");
      localStorage.removeItem(key);
    }
  } catch {
    // Nothing kept, nothing to put aside.
  }
}

export function forget(key: string): void {
  try {
    localStorage.removeItem(key);
  } catch {
    // Nothing kept, nothing to forget.
  }
}
