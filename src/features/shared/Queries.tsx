"use client";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";

/** What was fetched less long ago is not fetched again by itself. */
const FRESH_MS = 5000;

/** What was asked of the server, kept while one goes from page to page. */
export function Queries({ children }: { children: ReactNode }) {
  const [client] = useState(() => new QueryClient({ defaultOptions: { queries: { networkMode: "always", staleTime: FRESH_MS } } }));
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>;
}
