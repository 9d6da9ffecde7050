import type { QueryClient, QueryKey } from "@tanstack/react-query";

/** Store the answer to a change. Earlier requests are cancelled first: their answers would bring back older values. */
export async function keepAnswer<T>(queries: QueryClient, key: QueryKey, answer: T): Promise<void> {
  await queries.cancelQueries({ queryKey: key, exact: true });
  queries.setQueryData<T>(key, answer);
}
