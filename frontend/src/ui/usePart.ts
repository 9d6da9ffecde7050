import { useSearchParams } from "react-router";

/** The open part of a station, stored in the page's address; the first one by default. */
export function usePart<T extends string>(parts: readonly [T, ...T[]]): [T, (part: T) => void] {
  const [search, setSearch] = useSearchParams();
  const part = parts.find((name) => name === search.get("part")) ?? parts[0];
  const turn = (next: T) =>
    setSearch(
      (now) => {
        now.set("part", next);
        return now;
      },
      { replace: true },
    );
  return [part, turn];
}
