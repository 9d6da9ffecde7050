/** A plain value in the browser's storage, so that a reload loses nothing; the given default if none can be read. */
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
    // storage is full or forbidden: the value lasts until the page is left
  }
}
