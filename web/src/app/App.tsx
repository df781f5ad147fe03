import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { createBrowserRouter, Navigate, RouterProvider } from "react-router";
import { Counter } from "../counter/Counter";
import { EngineRoute } from "../engines/EngineRoute";
import { Engines } from "../engines/Engines";
import { Frame } from "../frame/Frame";
import { HouseRules } from "../house/HouseRules";
import { PriceRoute } from "../prices/PriceRoute";
import { QuoteRoute } from "../quote/QuoteRoute";
import { RevisionRoute } from "../quote/RevisionRoute";
import { SessionGate } from "../session/SessionGate";
import { KeysProvider } from "../shared/keys";
import { GlobalStyle } from "./GlobalStyle";

const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 5_000, refetchOnWindowFocus: false } } });

const router = createBrowserRouter([
  {
    path: "/",
    element: <Frame />,
    children: [
      { index: true, element: <Counter /> },
      { path: "quotes/:id", element: <QuoteRoute /> },
      { path: "quotes/:id/revisions/:number", element: <RevisionRoute /> },
      { path: "engines", element: <Engines /> },
      { path: "engines/:code", element: <EngineRoute /> },
      { path: "prices", element: <PriceRoute /> },
      { path: "house", element: <HouseRules /> },
      { path: "*", element: <Navigate to="/" replace /> },
    ],
  },
]);

export function App() {
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
