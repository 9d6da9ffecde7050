import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api } from "../api/client";
import { Button } from "../ui/parts";
import { SESSION } from "./LoginGate";

/** The button that ends the session, where the server needs one. */
export function LogOut() {
  const queries = useQueryClient();
  const { data } = useQuery({ queryKey: SESSION, queryFn: api.session, staleTime: Number.POSITIVE_INFINITY });
  if (!data?.login_needed) return null;
  const end = async () => {
    await api.logOut();
    queries.clear();
    window.location.assign("/"); // nothing of the session stays in memory
  };
  return (
    <Button tone="quiet" onClick={end}>
      Log out
    </Button>
  );
}
