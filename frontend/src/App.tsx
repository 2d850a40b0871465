import { lazy, Suspense } from "react";
import { Redirect, Route, Switch, useLocation } from "wouter";
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
const JoinPage = lazy(() => import("./pages/Fish/JoinPage"));
const LogPage = lazy(() => import("./pages/Log/LogPage"));
const BinPage = lazy(() => import("./pages/Log/BinPage"));
const OutingPage = lazy(() => import("./pages/Log/OutingPage"));
const KitPage = lazy(() => import("./pages/Kit/KitPage"));
const FlyBoxPage = lazy(() => import("./pages/FlyBox/FlyBoxPage"));
const AccountPage = lazy(() => import("./pages/Account/AccountPage"));
const StartPage = lazy(() => import("./pages/Start/StartPage"));
const WaterFormPage = lazy(() => import("./pages/Start/WaterFormPage"));

export function App() {
  const session = useSession();
  const [pathname] = useLocation();
  if (session.isPending) return <Loading what={words.opening} />;
  if (session.isError) return <Failed error={session.error} again={() => void session.refetch()} />;
  if (!session.data.name)
    return (
      <Suspense fallback={<Loading what={words.opening} />}>
        <SignInPage
          demo={session.data.demo_available}
          signUp={session.data.sign_up}
          mails={session.data.mails ?? false}
        />
      </Suspense>
    );
  return (
    <ReaderProvider session={session.data}>
      <OutboxProvider>
        <UndoProvider>
          <Shell>
            <Boundary key={pathname}>
              <Suspense fallback={<Loading what={words.opening} />}>
                <Switch>
                  <Route path="/">
                    <Redirect to="/plan" replace />
                  </Route>
                  <Route path="/water">
                    <WaterPage />
                  </Route>
                  <Route path="/water/chart">
                    <ChartPage />
                  </Route>
                  <Route path="/water/year">
                    <YearPage />
                  </Route>
                  <Route path="/water/boat">
                    <BoatPage />
                  </Route>
                  <Route path="/food">
                    <FoodPage />
                  </Route>
                  <Route path="/plan">
                    <PlanPage />
                  </Route>
                  <Route path="/plan/card">
                    <CardPage />
                  </Route>
                  <Route path="/thread">
                    <ThreadPage />
                  </Route>
                  <Route path="/fish">
                    <FishPage />
                  </Route>
                  <Route path="/fish/join/:code">
                    <JoinPage />
                  </Route>
                  <Route path="/fish/:id">
                    <FishPage />
                  </Route>
                  <Route path="/log">
                    <LogPage />
                  </Route>
                  <Route path="/log/bin">
                    <BinPage />
                  </Route>
                  <Route path="/log/:id">
                    <OutingPage />
                  </Route>
                  <Route path="/kit">
                    <KitPage />
                  </Route>
                  <Route path="/kit/box">
                    <FlyBoxPage />
                  </Route>
                  <Route path="/account">
                    <AccountPage />
                  </Route>
                  <Route path="/start">
                    <StartPage />
                  </Route>
                  <Route path="/waters/:id">
                    <WaterFormPage />
                  </Route>
                  <Route>
                    <NoSuchPage />
                  </Route>
                </Switch>
              </Suspense>
            </Boundary>
          </Shell>
        </UndoProvider>
      </OutboxProvider>
    </ReaderProvider>
  );
}
