import { useQuery } from "@tanstack/react-query";
import { api } from "../api/client";
import { Below, Masthead } from "../ui/Masthead";
import { Waiting } from "../ui/Waiting";
import { ItemList } from "./ItemList";

/** The order items of all designs, and how far their proofs have come. */
export function OrdersPage() {
  const query = useQuery({ queryKey: ["orders", "all"], queryFn: api.orderItems, refetchOnMount: "always" });
  const items = query.data?.items;
  return (
    <div className="flex h-full flex-col">
      <Masthead
        where={
          <Below>
            <b className="text-ink">Orders</b>
          </Below>
        }
      />
      {items ? (
        <main className="mx-auto w-full max-w-5xl grow overflow-y-auto p-4">
          <h1 className="mb-3 text-lg font-bold">Orders</h1>
          {items.length ? (
            <ItemList items={items} withTitle />
          ) : (
            <p className="max-w-prose text-sm text-soft">
              No orders yet. Write {"{name}"} in the words of a design, then make its orders at Sell, under Orders.
            </p>
          )}
        </main>
      ) : (
        <Waiting problem={query.error?.message} onRetry={() => query.refetch()}>
          Loading the orders…
        </Waiting>
      )}
    </div>
  );
}
