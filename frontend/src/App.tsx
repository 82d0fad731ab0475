import { lazy, Suspense, useState, type ComponentType } from "react";
import { BrowserRouter, matchPath, Route, Routes, useLocation } from "react-router";

import { useCatalogue } from "./api/queries";
import { BenchView } from "./features/bench/BenchView";
import { Missing } from "./shell/Missing";
import { Shell } from "./shell/Shell";
import { Unopened } from "./shell/Unopened";
import { useFollow } from "./shell/useFollow";

/** A view in a file of its own. Shown at once where the file is here: React draws what it waited for 300 ms late. */
function view(load: () => Promise<{ default: ComponentType }>) {
  let here: ComponentType | undefined;
  const Later = lazy(load);
  function View() {
    const [Shown] = useState<ComponentType>(() => here ?? Later);
    return <Shown />;
  }
  const fetch = async () => {
    here = (await load()).default;
  };
  return { element: <View />, fetch };
}

const VIEWS = Object.entries({
  "/equipment/:id": view(() => import("./features/equipment/EquipmentView")),
  "/add": view(() => import("./features/frontdoor/AddLampView")),
  "/trouble": view(() => import("./features/frontdoor/TroubleView")),
  "/equipment/:id/add": view(() => import("./features/frontdoor/AddLampView")),
  "/equipment/:id/take-in": view(() => import("./features/takein/TakeInView")),
  "/equipment/:id/dim/:dim": view(() => import("./features/dim/DimView")),
  "/equipment/:id/fitted/:fitted": view(() => import("./features/circuits/CircuitView")),
  "/equipment/:id/card": view(() => import("./features/card/CoverView")),
  "/equipment/:id/match": view(() => import("./features/match/MatchView")),
  "/position/:id": view(() => import("./features/position/PositionView")),
  "/position/:id/alike": view(() => import("./features/alike/AlikeView")),
  "/position/:id/readings": view(() => import("./features/readings/ReadingsView")),
  "/position/:id/build": view(() => import("./features/build/BuildView")),
  "/position/:id/card": view(() => import("./features/card/CardView")),
  "/drawer": view(() => import("./features/drawer/DrawerView")),
  "/drawer/marks": view(() => import("./features/drawer/MarksView")),
  "/drawer/buy": view(() => import("./features/drawer/BuyView")),
  "/day": view(() => import("./features/day/DayView")),
  "/backups": view(() => import("./features/backups/BackupsView")),
  "/devices": view(() => import("./features/devices/DevicesView")),
});

/** For whoever is not paired yet: nothing of the bench is asked for. */
const FOR_STRANGERS = Object.entries({
  "/pair": view(() => import("./features/devices/PairView")),
  "/look/:token": view(() => import("./features/card/LookView")),
});

// The first view's file comes while drafts, tabs and the catalogue are opened. Without it the view says so itself.
const first = VIEWS.find(([path]) => matchPath(path, location.pathname));
first?.[1].fetch().catch(() => undefined);

const opening = <p role="status">Opening…</p>;

const away = (problem: unknown) => (
  <Shell title="Not found">
    <Missing problem={problem} />
  </Shell>
);

export function App() {
  return (
    <BrowserRouter>
      <Suspense fallback={opening}>
        <Routes>
          {FOR_STRANGERS.map(([path, { element }]) => (
            <Route key={path} path={path} element={element} />
          ))}
          <Route path="*" element={<Views />} />
        </Routes>
      </Suspense>
    </BrowserRouter>
  );
}

/** The views, once the catalogue is there: a form without it would grow fields under the typist's hand. */
function Views() {
  const catalogue = useCatalogue();
  useFollow();
  const at = useLocation().pathname;
  if (!catalogue.data) {
    return catalogue.failureReason === null ? opening : away(catalogue.failureReason);
  }
  return (
    <Unopened at={at}>
      <Suspense fallback={opening}>
        <Routes>
          <Route path="/" element={<BenchView />} />
          {VIEWS.map(([path, { element }]) => (
            <Route key={path} path={path} element={element} />
          ))}
          <Route path="*" element={away(undefined)} />
        </Routes>
      </Suspense>
    </Unopened>
  );
}
