import type { QueryClient, QueryKey } from "@tanstack/react-query";

/** Mockups what a change was answered with. Whatever was asked before is let go first: told later, it would bring back the old. */
export async function keepAnswer<T>(queries: QueryClient, key: QueryKey, answer: T): Promise<void> {
  await queries.cancelQueries({ queryKey: key, exact: true });
  queries.setQueryData<T>(key, answer);
}
