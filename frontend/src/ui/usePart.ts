import { useSearchParams } from "react-router";

/** Which part of a station is in front, kept in the page's address; the first one until another is chosen. */
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
