import { lazy, Suspense } from "react";
import { BrowserRouter, Route, Routes } from "react-router";

import { BenchView } from "./features/bench/BenchView";
import { Missing } from "./shell/Missing";
import { Shell } from "./shell/Shell";

const PositionView = lazy(() => import("./features/position/PositionView"));
const EquipmentView = lazy(() => import("./features/equipment/EquipmentView"));
const TakeInView = lazy(() => import("./features/takein/TakeInView"));
const ReadingsView = lazy(() => import("./features/readings/ReadingsView"));
const DrawerView = lazy(() => import("./features/drawer/DrawerView"));

export function App() {
  return (
    <BrowserRouter>
      <Suspense fallback={<p role="status">Opening…</p>}>
        <Routes>
          <Route path="/" element={<BenchView />} />
          <Route path="/equipment/:id" element={<EquipmentView />} />
          <Route path="/equipment/:id/take-in" element={<TakeInView />} />
          <Route path="/position/:id" element={<PositionView />} />
          <Route path="/position/:id/readings" element={<ReadingsView />} />
          <Route path="/drawer" element={<DrawerView />} />
          <Route
            path="*"
            element={
              <Shell>
                <Missing problem={null} />
              </Shell>
            }
          />
        </Routes>
      </Suspense>
    </BrowserRouter>
  );
}
