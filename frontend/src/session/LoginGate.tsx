import { useQuery, useQueryClient } from "@tanstack/react-query";
import { lazy, type ReactNode, Suspense, useEffect, useRef } from "react";
import { api } from "../api/client";
import { LOGGED_OUT } from "../api/http";
import { LoginForm } from "./LoginForm";

const LoginAgain = lazy(() => import("./LoginAgain"));

export const SESSION = ["session"];

/** The page, once its user has logged in where that is needed. A session that ends later is renewed in a dialog over the page,
 * so that nothing typed is lost. */
export function LoginGate({ children }: { children: ReactNode }) {
  const queries = useQueryClient();
  const { data, isPending } = useQuery({
    queryKey: SESSION,
    queryFn: api.session,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const entered = useRef(false);
  useEffect(() => {
    const ended = () => queries.setQueryData(SESSION, { login_needed: true, logged_in: false });
    window.addEventListener(LOGGED_OUT, ended);
    return () => window.removeEventListener(LOGGED_OUT, ended);
  }, [queries]);
  if (isPending) return <p className="p-6 text-soft">Loading…</p>;
  const outside = data?.logged_in === false;
  if (!outside) entered.current = true; // a server that does not answer is reported by the page itself
  if (!entered.current)
    return (
      <main className="mx-auto mt-24 w-80 border border-ink bg-paper p-6">
        <h1 className="mb-4 text-xl font-bold">Improva</h1>
        <LoginForm />
      </main>
    );
  return (
    <>
      {children}
      {outside && (
        <Suspense>
          <LoginAgain />
        </Suspense>
      )}
    </>
  );
}
