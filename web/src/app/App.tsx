import { QueryClientProvider } from "@tanstack/react-query";
import { lazy } from "react";
import { createBrowserRouter, Link, RouterProvider } from "react-router";
import { queryClient } from "@/data/queries";
import { Shell } from "./Shell";
import { Shortcuts } from "./shortcuts";

const Today = lazy(() => import("@/views/today/Today"));
const Floor = lazy(() => import("@/views/floor/Floor"));
const Compose = lazy(() => import("@/views/compose/Compose"));
const Season = lazy(() => import("@/views/season/Season"));
const MeetDay = lazy(() => import("@/views/season/MeetDay"));
const Ledger = lazy(() => import("@/views/ledger/Ledger"));
const Strength = lazy(() => import("@/views/strength/Strength"));
const Kit = lazy(() => import("@/views/kit/Kit"));
const Week = lazy(() => import("@/views/ledger/Week"));
const Import = lazy(() => import("@/views/ledger/import/Import"));
const PastSession = lazy(() => import("@/views/ledger/PastSession"));

const router = createBrowserRouter([
  {
    element: <Shell />,
    children: [
      { path: "/", element: <Today /> },
      { path: "/floor/:id?", element: <Floor /> },
      { path: "/compose/:id?", element: <Compose /> },
      { path: "/season", element: <Season /> },
      { path: "/season/day", element: <MeetDay /> },
      { path: "/ledger", element: <Ledger /> },
      { path: "/ledger/week/:monday", element: <Week /> },
      { path: "/ledger/import", element: <Import /> },
      { path: "/ledger/:id", element: <PastSession /> },
      { path: "/strength", element: <Strength /> },
      { path: "/kit", element: <Kit /> },
      { path: "*", element: <Nowhere /> },
    ],
  },
]);

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
