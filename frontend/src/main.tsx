import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { lazy, StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";
import { Problem } from "./api/client";
import { router } from "./router";
import { LoginGate } from "./session/LoginGate";
import { UnitProvider } from "./ui/unit";
import "./styles.css";

const ConflictDialog = lazy(() => import("./ui/ConflictDialog"));

const queries = new QueryClient({
  defaultOptions: {
    queries: { retry: (count, error) => error instanceof Problem && error.offline && count < 2, staleTime: 2000 },
    mutations: { networkMode: "always" },
  },
});

createRoot(document.getElementById("root") as HTMLElement).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <UnitProvider>
        <LoginGate>
          <RouterProvider router={router} />
          <Suspense>
            <ConflictDialog />
          </Suspense>
        </LoginGate>
      </UnitProvider>
    </QueryClientProvider>
  </StrictMode>,
);
