import { useQuery } from "@tanstack/react-query";
import { api } from "../api/client";
import { SubPage } from "../ui/SubPage";
import { ItemList } from "./ItemList";

/** The order items of all designs, and how far their proofs have come. */
export function OrdersPage() {
  const query = useQuery({ queryKey: ["orders", "all"], queryFn: api.orderItems, refetchOnMount: "always" });
  return (
    <SubPage title="Orders" asked={query} waiting="Loading the orders…">
      {({ items }) =>
        items.length ? (
          <ItemList items={items} withTitle />
        ) : (
          <p className="max-w-prose text-sm text-soft">
            No orders yet. Write {"{name}"} in the words of a design, then make its orders at Sell, under Orders.
          </p>
        )
      }
    </SubPage>
  );
}
