import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { useEffect } from "react";
import { createBrowserRouter, Navigate, RouterProvider } from "react-router";
import { Frame } from "../frame/Frame";
import { SessionGate } from "../session/SessionGate";
import { KeysProvider } from "../shared/keys";
import { GlobalStyle } from "./GlobalStyle";
import { ScreenMissing } from "./ScreenMissing";
import { fetchTheRest, screen } from "./screens";

const queries = new QueryClient({
  defaultOptions: { queries: { retry: 1, staleTime: 5_000, refetchOnWindowFocus: false } },
});

const router = createBrowserRouter([
  {
    path: "/",
    element: <Frame />,
    HydrateFallback: () => null,
    errorElement: <ScreenMissing />,
    children: [
      { index: true, ...screen("counter") },
      { path: "quotes/:id", ...screen("quote") },
      { path: "quotes/:id/revisions/:number", ...screen("revision") },
      { path: "quotes/:id/yes", ...screen("yes") },
      { path: "quotes/:id/trace", ...screen("trace") },
      { path: "day", ...screen("day") },
      { path: "calendar", ...screen("calendar") },
      { path: "bay", ...screen("jobs") },
      { path: "bay/:id", ...screen("card") },
      { path: "cars/:id", ...screen("car") },
      { path: "bills/:id", ...screen("bill") },
      { path: "bench", ...screen("bench") },
      { path: "engines", ...screen("engines") },
      { path: "engines/:code", ...screen("engine") },
      { path: "workshop/:code", ...screen("workshop") },
      { path: "compare", ...screen("compare") },
      { path: "ledger", ...screen("ledger") },
      { path: "practice", ...screen("practice") },
      { path: "practice/:seed", ...screen("practice") },
      { path: "prices", ...screen("prices") },
      { path: "house", ...screen("house") },
      { path: "*", element: <Navigate to="/" replace /> },
    ],
  },
]);

export function App() {
  useEffect(fetchTheRest, []);
  return (
    <QueryClientProvider client={queries}>
      <GlobalStyle />
      <KeysProvider>
        <SessionGate>
          <RouterProvider router={router} />
        </SessionGate>
      </KeysProvider>
    </QueryClientProvider>
  );
}
