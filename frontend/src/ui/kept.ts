/** What this browser keeps by itself, so that a reload loses nothing: a plain value, or what is given where none can be read. */
export function read<T>(key: string, otherwise: T): T {
  try {
    return (JSON.parse(localStorage.getItem(key) ?? "null") as T | null) ?? otherwise;
  } catch {
    return otherwise;
  }
}

export function keep(key: string, value: unknown) {
  try {
    localStorage.setItem(key, JSON.stringify(value));
  } catch {
    // a full or forbidden store: it holds until the page is left
  }
}
