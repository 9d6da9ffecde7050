import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, Link, RouterProvider } from "react-router";
import { Problem } from "./api/client";
import { BenchPage } from "./bench/BenchPage";
import { BlanksPage } from "./blanks/BlanksPage";
import { BoardPage } from "./board/BoardPage";
import { GangPage } from "./gang/GangPage";
import { PhotoPage } from "./photo/PhotoPage";
import { UnitProvider } from "./ui/unit";
import "./styles.css";

const queries = new QueryClient({
  defaultOptions: {
    queries: { retry: (count, error) => error instanceof Problem && error.offline && count < 2, staleTime: 2000 },
    mutations: { networkMode: "always" },
  },
});

function Lost() {
  return (
    <main className="mx-auto max-w-md p-12">
      <h1 className="mb-2 text-xl font-bold">There is nothing at this address</h1>
      <Link to="/" className="underline">
        Go to the range board
      </Link>
    </main>
  );
}

const router = createBrowserRouter([
  { path: "/", element: <BoardPage /> },
  { path: "/blanks/:id?", element: <BlanksPage /> },
  { path: "/gang", element: <GangPage /> },
  { path: "/bench/:art/:template/:station?", element: <BenchPage /> },
  { path: "/photograph/:id/:art", element: <PhotoPage /> },
  { path: "*", element: <Lost /> },
]);

createRoot(document.getElementById("root") as HTMLElement).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <UnitProvider>
        <RouterProvider router={router} />
      </UnitProvider>
    </QueryClientProvider>
  </StrictMode>,
);
