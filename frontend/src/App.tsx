import { lazy, Suspense } from "react";
import { BrowserRouter, Route, Routes } from "react-router";

import { useCatalogue } from "./api/queries";
import { BenchView } from "./features/bench/BenchView";
import { Missing } from "./shell/Missing";
import { Shell } from "./shell/Shell";

const PositionView = lazy(() => import("./features/position/PositionView"));
const EquipmentView = lazy(() => import("./features/equipment/EquipmentView"));
const TakeInView = lazy(() => import("./features/takein/TakeInView"));
const ReadingsView = lazy(() => import("./features/readings/ReadingsView"));
const DimView = lazy(() => import("./features/dim/DimView"));
const FittedView = lazy(() => import("./features/fitted/FittedView"));
const MatchView = lazy(() => import("./features/match/MatchView"));
const BuildView = lazy(() => import("./features/build/BuildView"));
const CoverView = lazy(() => import("./features/card/CoverView"));
const CardView = lazy(() => import("./features/card/CardView"));
const MarksView = lazy(() => import("./features/drawer/MarksView"));
const BuyView = lazy(() => import("./features/drawer/BuyView"));
const DayView = lazy(() => import("./features/day/DayView"));
const DrawerView = lazy(() => import("./features/drawer/DrawerView"));

const opening = <p role="status">Opening…</p>;

const away = (problem: unknown) => (
  <Shell title="Not found">
    <Missing problem={problem} />
  </Shell>
);

export function App() {
  return (
    <BrowserRouter>
      <Views />
    </BrowserRouter>
  );
}

/** The views, once the catalogue is there: a form without it would grow fields under the typist's hand. */
function Views() {
  const catalogue = useCatalogue();
  if (!catalogue.data) {
    return catalogue.failureReason === null ? opening : away(catalogue.failureReason);
  }
  return (
    <Suspense fallback={opening}>
      <Routes>
        <Route path="/" element={<BenchView />} />
        <Route path="/equipment/:id" element={<EquipmentView />} />
        <Route path="/equipment/:id/take-in" element={<TakeInView />} />
        <Route path="/equipment/:id/dim/:dim" element={<DimView />} />
        <Route path="/equipment/:id/fitted/:fitted" element={<FittedView />} />
        <Route path="/equipment/:id/card" element={<CoverView />} />
        <Route path="/equipment/:id/match" element={<MatchView />} />
        <Route path="/position/:id" element={<PositionView />} />
        <Route path="/position/:id/readings" element={<ReadingsView />} />
        <Route path="/position/:id/build" element={<BuildView />} />
        <Route path="/position/:id/card" element={<CardView />} />
        <Route path="/drawer" element={<DrawerView />} />
        <Route path="/drawer/marks" element={<MarksView />} />
        <Route path="/drawer/buy" element={<BuyView />} />
        <Route path="/day" element={<DayView />} />
        <Route path="*" element={away(undefined)} />
      </Routes>
    </Suspense>
  );
}
