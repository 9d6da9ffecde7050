import { createBrowserRouter, Outlet } from "react-router";
import { BrokenPage } from "./ui/BrokenPage";
import { NotFoundPage } from "./ui/NotFoundPage";

/** Each page is a file of its own, loaded when its address is opened. A page that fails leaves the others usable. */
export const router = createBrowserRouter([
  {
    element: <Outlet />,
    errorElement: <BrokenPage />,
    hydrateFallbackElement: <p className="p-6 text-soft">Loading…</p>,
    children: [
      { path: "/", lazy: async () => ({ Component: (await import("./board/BoardPage")).BoardPage }) },
      { path: "/blanks/:id?", lazy: async () => ({ Component: (await import("./blanks/BlanksPage")).BlanksPage }) },
      { path: "/gang", lazy: async () => ({ Component: (await import("./gang/GangPage")).GangPage }) },
      { path: "/plan", lazy: async () => ({ Component: (await import("./plan/PlanPage")).PlanPage }) },
      { path: "/orders", lazy: async () => ({ Component: (await import("./orders/OrdersPage")).OrdersPage }) },
      {
        path: "/bench/:art/:template/:station?",
        lazy: async () => ({ Component: (await import("./bench/BenchPage")).BenchPage }),
      },
      {
        path: "/photograph/:id/:art",
        lazy: async () => ({ Component: (await import("./photo/PhotoPage")).PhotoPage }),
      },
      { path: "*", element: <NotFoundPage /> },
    ],
  },
]);
