import "@fontsource-variable/atkinson-hyperlegible-mono/wght.css";
import "@fontsource-variable/atkinson-hyperlegible-next/wght.css";
import "@fontsource-variable/atkinson-hyperlegible-next/wght-italic.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";

import { App } from "./App";
import { start } from "./api/outbox";
import { Refused } from "./api/client";
import { GlobalStyle } from "./theme/global";

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      // The server is on this machine: whether the browser thinks itself online is beside the point.
      networkMode: "always",
      refetchOnWindowFocus: false,
      retry: (count, problem) => !(problem instanceof Refused) && count < 30,
      retryDelay: 1500,
    },
  },
});

start();
const root = document.getElementById("root");
if (!root) throw new Error("The page has no root.");
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <GlobalStyle />
      <App />
    </QueryClientProvider>
  </StrictMode>,
);
