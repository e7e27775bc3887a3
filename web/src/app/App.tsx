import { QueryClientProvider } from "@tanstack/react-query";
import type { ComponentType } from "react";
import { createBrowserRouter, Link, RouterProvider } from "react-router";
import { queryClient } from "@/data/queries";
import { Shell } from "./Shell";
import { Shortcuts } from "./shortcuts";

/** A view as a route has it: loaded when it is gone to, the one before it staying until then. */
const view = (load: () => Promise<{ default: ComponentType }>) => async () => ({
  Component: (await load()).default,
});

const router = createBrowserRouter([
  {
    element: <Shell />,
    children: [
      {
        errorElement: <Broken />,
        children: [
          { path: "/", lazy: view(() => import("@/views/today/Today")) },
          { path: "/floor/:id?", lazy: view(() => import("@/views/floor/Floor")) },
          { path: "/compose/:id?", lazy: view(() => import("@/views/compose/Compose")) },
          { path: "/season", lazy: view(() => import("@/views/season/Season")) },
          { path: "/season/day", lazy: view(() => import("@/views/season/MeetDay")) },
          { path: "/ledger", lazy: view(() => import("@/views/ledger/Ledger")) },
          { path: "/ledger/week/:monday", lazy: view(() => import("@/views/ledger/Week")) },
          { path: "/ledger/blocks", lazy: view(() => import("@/views/ledger/Blocks")) },
          { path: "/ledger/import", lazy: view(() => import("@/views/ledger/import/Import")) },
          { path: "/ledger/:id", lazy: view(() => import("@/views/ledger/PastSession")) },
          { path: "/strength", lazy: view(() => import("@/views/strength/Strength")) },
          { path: "/kit", lazy: view(() => import("@/views/kit/Kit")) },
          { path: "*", element: <Nowhere /> },
        ],
      },
    ],
  },
]);

/** Comes true once the view of this address can be drawn, so that it is drawn once. */
export const ready = new Promise<void>((resolve) => {
  if (router.state.initialized) resolve();
  const stop = router.subscribe(({ initialized }) => {
    if (!initialized) return;
    stop();
    resolve();
  });
});

export function App() {
  return (
    <QueryClientProvider client={queryClient}>
      <Shortcuts>
        <RouterProvider router={router} />
      </Shortcuts>
    </QueryClientProvider>
  );
}

function Nowhere() {
  return (
    <div className="p-8">
      <h1 className="text-2xl font-bold">There is nothing at this address</h1>
      <Link to="/" className="underline underline-offset-4">
        Go to Today
      </Link>
    </div>
  );
}

/** Where a view could not be fetched or shown: what is recorded is kept, and the page can be had anew. */
function Broken() {
  return (
    <div role="alert" className="p-8">
      <h1 className="text-2xl font-bold">This view could not be shown</h1>
      <p className="mt-2 text-faint">Nothing that you recorded is lost.</p>
      <button
        type="button"
        onClick={() => location.reload()}
        className="mt-4 min-h-11 underline underline-offset-4"
      >
        Load the page again
      </button>
    </div>
  );
}
