import {
  createRootRoute,
  createRoute,
  createRouter,
  lazyRouteComponent,
  redirect,
} from "@tanstack/react-router";
import { Broken } from "./Broken";
import { Frame } from "./Frame";

const root = createRootRoute({ component: Frame });

const home = createRoute({
  getParentRoute: () => root,
  path: "/",
  beforeLoad: () => {
    // The router takes a thrown redirect for its answer.
    // eslint-disable-next-line @typescript-eslint/only-throw-error
    throw redirect({ to: "/systems" });
  },
});

const systems = createRoute({
  getParentRoute: () => root,
  path: "/systems",
  component: lazyRouteComponent(() => import("@/features/systems"), "SystemsPage"),
});

const system = createRoute({
  getParentRoute: () => root,
  path: "/systems/$id/$stage",
  component: lazyRouteComponent(() => import("@/features/plan"), "PlanPage"),
});

const rooms = createRoute({
  getParentRoute: () => root,
  path: "/rooms",
  component: lazyRouteComponent(() => import("@/features/rooms"), "RoomsPage"),
});

const room = createRoute({
  getParentRoute: () => root,
  path: "/rooms/$id/$stage",
  component: lazyRouteComponent(() => import("@/features/rooms"), "RoomPage"),
});

const waters = createRoute({
  getParentRoute: () => root,
  path: "/waters",
  component: lazyRouteComponent(() => import("@/features/waters"), "WatersPage"),
});

const library = createRoute({
  getParentRoute: () => root,
  path: "/library",
  component: lazyRouteComponent(() => import("@/features/library"), "LibraryPage"),
});

const round = createRoute({
  getParentRoute: () => root,
  path: "/round",
  component: lazyRouteComponent(() => import("@/features/round"), "RoundPage"),
});

const away = createRoute({
  getParentRoute: () => root,
  path: "/round/away",
  component: lazyRouteComponent(() => import("@/features/round"), "AwayPage"),
});

const stock = createRoute({
  getParentRoute: () => root,
  path: "/round/stock",
  component: lazyRouteComponent(() => import("@/features/round"), "StockPage"),
});

const feeding = createRoute({
  getParentRoute: () => root,
  path: "/round/feeding",
  component: lazyRouteComponent(() => import("@/features/feeding"), "FeedingPage"),
});

const register = createRoute({
  getParentRoute: () => root,
  path: "/register",
  component: lazyRouteComponent(() => import("@/features/register"), "RegisterPage"),
});

const quarantine = createRoute({
  getParentRoute: () => root,
  path: "/register/quarantine",
  validateSearch: (search: Record<string, unknown>): { expect?: boolean } =>
    search.expect ? { expect: true } : {},
  component: lazyRouteComponent(() => import("@/features/quarantine"), "QuarantinePage"),
});

const breeding = createRoute({
  getParentRoute: () => root,
  path: "/breeding",
  component: lazyRouteComponent(() => import("@/features/breeding"), "BreedingPage"),
});

const rack = createRoute({
  getParentRoute: () => root,
  path: "/breeding/rack",
  component: lazyRouteComponent(() => import("@/features/breeding"), "RackPage"),
});

const venture = createRoute({
  getParentRoute: () => root,
  path: "/breeding/$id/$stage",
  component: lazyRouteComponent(() => import("@/features/breeding"), "VenturePage"),
});

const log = createRoute({
  getParentRoute: () => root,
  path: "/log",
  component: lazyRouteComponent(() => import("@/features/log"), "LogPage"),
});

export const router = createRouter({
  routeTree: root.addChildren([
    home,
    round,
    away,
    stock,
    feeding,
    register,
    quarantine,
    breeding,
    rack,
    venture,
    systems,
    system,
    rooms,
    room,
    log,
    waters,
    library,
  ]),
  defaultPreload: "intent",
  defaultErrorComponent: Broken,
});

declare module "@tanstack/react-router" {
  interface Register {
    router: typeof router;
  }
}
