import "@fontsource-variable/atkinson-hyperlegible-mono/wght.css";
import "@fontsource-variable/atkinson-hyperlegible-next/wght.css";
import "@fontsource-variable/atkinson-hyperlegible-next/wght-italic.css";
import { focusManager, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";

import { App } from "./App";
import { askedAgain } from "./api/askedAgain";
import { sayZone } from "./api/zone";
import { openDrafts } from "./saving/drafts";
import { saidBefore } from "./saving/begunAnew";
import { say } from "./saving/notices";
import { openPhotos } from "./saving/photoQueue";
import { openSaves } from "./saving/saves";
import { openStore } from "./saving/store";
import { openTabs, takeTab } from "./saving/tab";
import { GlobalStyle } from "./theme/global";

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      // The server is on this machine: whether the browser thinks itself online is beside the point.
      networkMode: "always",
      refetchOnWindowFocus: false,
      retry: askedAgain,
      retryDelay: 1500,
    },
    mutations: { networkMode: "always" },
  },
});

// A save is sent whether or not somebody looks at the page.
focusManager.setFocused(true);

sayZone();
await takeTab();
await openStore((late) => void openTabs().then((tabs) => openDrafts(tabs, late)));
openDrafts(await openTabs());
void openSaves(queries);
void openPhotos((item) => void queries.invalidateQueries({ queryKey: ["equipment", item] }));
const said = saidBefore();
if (said) say({ text: said });

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
