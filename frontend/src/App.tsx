import { lazy, Suspense } from "react";
import { Navigate, Route, Routes, useLocation } from "react-router";
import { Boundary } from "./components/Boundary";
import { Shell } from "./components/Shell";
import { Failed, Loading, NoSuchPage } from "./components/states";
import { words } from "./components/strings";
import { ReaderProvider, useSession } from "./lib/session";
import { OutboxProvider } from "./offline/useOuting";
import { UndoProvider } from "./ui/UndoBar";

const SignInPage = lazy(() => import("./pages/SignIn/SignInPage"));
const WaterPage = lazy(() => import("./pages/Water/WaterPage"));
const FoodPage = lazy(() => import("./pages/Food/FoodPage"));
const ChartPage = lazy(() => import("./pages/Chart/ChartPage"));
const YearPage = lazy(() => import("./pages/Year/YearPage"));
const BoatPage = lazy(() => import("./pages/Boat/BoatPage"));
const PlanPage = lazy(() => import("./pages/Plan/PlanPage"));
const CardPage = lazy(() => import("./pages/Card/CardPage"));
const ThreadPage = lazy(() => import("./pages/Thread/ThreadPage"));
const FishPage = lazy(() => import("./pages/Fish/FishPage"));
const LogPage = lazy(() => import("./pages/Log/LogPage"));
const BinPage = lazy(() => import("./pages/Log/BinPage"));
const OutingPage = lazy(() => import("./pages/Log/OutingPage"));
const KitPage = lazy(() => import("./pages/Kit/KitPage"));
const FlyBoxPage = lazy(() => import("./pages/FlyBox/FlyBoxPage"));
const StartPage = lazy(() => import("./pages/Start/StartPage"));
const WaterFormPage = lazy(() => import("./pages/Start/WaterFormPage"));

export function App() {
  const session = useSession();
  const { pathname } = useLocation();
  if (session.isPending) return <Loading what={words.opening} />;
  if (session.isError) return <Failed error={session.error} again={() => void session.refetch()} />;
  if (!session.data.name)
    return (
      <Suspense fallback={<Loading what={words.opening} />}>
        <SignInPage demo={session.data.demo_available} />
      </Suspense>
    );
  return (
    <ReaderProvider session={session.data}>
      <OutboxProvider>
        <UndoProvider>
          <Shell>
            <Boundary key={pathname}>
              <Suspense fallback={<Loading what={words.opening} />}>
                <Routes>
                  <Route path="/" element={<Navigate to="/plan" replace />} />
                  <Route path="/water" element={<WaterPage />} />
                  <Route path="/water/chart" element={<ChartPage />} />
                  <Route path="/water/year" element={<YearPage />} />
                  <Route path="/water/boat" element={<BoatPage />} />
                  <Route path="/food" element={<FoodPage />} />
                  <Route path="/plan" element={<PlanPage />} />
                  <Route path="/plan/card" element={<CardPage />} />
                  <Route path="/thread" element={<ThreadPage />} />
                  <Route path="/fish" element={<FishPage />} />
                  <Route path="/fish/:id" element={<FishPage />} />
                  <Route path="/log" element={<LogPage />} />
                  <Route path="/log/bin" element={<BinPage />} />
                  <Route path="/log/:id" element={<OutingPage />} />
                  <Route path="/kit" element={<KitPage />} />
                  <Route path="/kit/box" element={<FlyBoxPage />} />
                  <Route path="/start" element={<StartPage />} />
                  <Route path="/waters/:id" element={<WaterFormPage />} />
                  <Route path="*" element={<NoSuchPage />} />
                </Routes>
              </Suspense>
            </Boundary>
          </Shell>
        </UndoProvider>
      </OutboxProvider>
    </ReaderProvider>
  );
}
