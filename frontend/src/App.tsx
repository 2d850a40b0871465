import { type ComponentType, type LazyExoticComponent, lazy, Suspense } from "react";
import { Redirect, Route, Switch, useLocation } from "wouter";
import { Boundary } from "./components/Boundary";
import { Shell } from "./components/Shell";
import { Failed, Loading, NoSuchPage } from "./components/states";
import { words } from "./components/strings";
import { ReaderProvider, useSession } from "./lib/session";
import { OutboxProvider } from "./offline/useOuting";
import { UndoProvider } from "./ui/UndoBar";

const SignInPage = lazy(() => import("./pages/SignIn/SignInPage"));
const FishPage = lazy(() => import("./pages/Fish/FishPage"));

/** Every page by its address, each fetched when it is opened. */
const PAGES: [string, LazyExoticComponent<ComponentType>][] = [
  ["/water", lazy(() => import("./pages/Water/WaterPage"))],
  ["/water/chart", lazy(() => import("./pages/Chart/ChartPage"))],
  ["/water/year", lazy(() => import("./pages/Year/YearPage"))],
  ["/water/boat", lazy(() => import("./pages/Boat/BoatPage"))],
  ["/food", lazy(() => import("./pages/Food/FoodPage"))],
  ["/plan", lazy(() => import("./pages/Plan/PlanPage"))],
  ["/plan/card", lazy(() => import("./pages/Card/CardPage"))],
  ["/thread", lazy(() => import("./pages/Thread/ThreadPage"))],
  ["/fish", FishPage],
  ["/fish/join/:code", lazy(() => import("./pages/Fish/JoinPage"))],
  ["/fish/:id", FishPage],
  ["/log", lazy(() => import("./pages/Log/LogPage"))],
  ["/log/season", lazy(() => import("./pages/Log/SeasonPage"))],
  ["/log/keep", lazy(() => import("./pages/Keep/KeepPage"))],
  ["/log/bin", lazy(() => import("./pages/Log/BinPage"))],
  ["/log/:id", lazy(() => import("./pages/Log/OutingPage"))],
  ["/kit", lazy(() => import("./pages/Kit/KitPage"))],
  ["/kit/box", lazy(() => import("./pages/FlyBox/FlyBoxPage"))],
  ["/account", lazy(() => import("./pages/Account/AccountPage"))],
  ["/start", lazy(() => import("./pages/Start/StartPage"))],
  ["/waters/:id", lazy(() => import("./pages/Start/WaterFormPage"))],
];

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
                  {PAGES.map(([path, Page]) => (
                    <Route key={path} path={path}>
                      <Page />
                    </Route>
                  ))}
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
