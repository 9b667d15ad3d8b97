import type { ComponentType } from 'react';
import { createBrowserRouter, type NonIndexRouteObject, type RouteObject } from 'react-router';
import { type AppStore, api } from '#web/shared/store/index.ts';
import { frame as say } from '#words/index.ts';
import { Broken } from './Broken.tsx';
import { Shell } from './Shell.tsx';

/** A page that comes when it is opened: the module that its feature shows to others, and what the page is called there. */
const page = <Name extends string>(
  path: string,
  open: () => Promise<Record<Name, ComponentType>>,
  name: Name,
): NonIndexRouteObject => ({ path, lazy: async () => ({ Component: (await open())[name] }) });

/** Pages for takes: of a rig, or without one. */
const takePages = (): RouteObject[] => [
  page('bench', () => import('#web/features/measure/takes/index.ts'), 'TakesScreen'),
  page('bench/balance', () => import('#web/features/measure/mix/index.ts'), 'MixScreen'),
  page('bench/try', () => import('#web/features/measure/process/index.ts'), 'ProcessScreen'),
  page('bench/join', () => import('#web/features/measure/join/index.ts'), 'JoinScreen'),
  page('bench/blind', () => import('#web/features/measure/blind-test/index.ts'), 'BlindTestScreen'),
];

const pagesOfRig = (): RouteObject[] => [
  page('plan', () => import('#web/features/design/plan/index.ts'), 'PlanScreen'),
  page('wire', () => import('#web/features/design/wire/index.ts'), 'WireScreen'),
  page('route', () => import('#web/features/design/route/index.ts'), 'RouteScreen'),
  page('level', () => import('#web/features/design/level/index.ts'), 'LevelScreen'),
  page('sync', () => import('#web/features/design/sync/index.ts'), 'SyncScreen'),
  page('sync/paths', () => import('#web/features/measure/sync-test/index.ts'), 'SyncTestScreen'),
  page('next', () => import('#web/features/live/next/index.ts'), 'NextScreen'),
  page('how', () => import('#web/features/live/guides/index.ts'), 'GuideScreen'),
  page('how/:guideId', () => import('#web/features/live/guides/index.ts'), 'GuideScreen'),
  page('run', () => import('#web/features/live/run/index.ts'), 'RunScreen'),
  page('scan', () => import('#web/features/measure/scan/index.ts'), 'ScanScreen'),
  page('tap', () => import('#web/features/measure/tap-test/index.ts'), 'TapTestScreen'),
  page('trouble', () => import('#web/features/live/troubleshoot/index.ts'), 'TroubleshootScreen'),
  page('measured', () => import('#web/features/measure/measurements/index.ts'), 'MeasurementsScreen'),
  page('log', () => import('#web/features/live/log/index.ts'), 'LogScreen'),
  page('versions', () => import('#web/features/library/versions/index.ts'), 'VersionsScreen'),
  page('desk', () => import('#web/features/live/to-do/index.ts'), 'ToDoScreen'),
  page('beside', () => import('#web/features/design/variants/index.ts'), 'VariantsScreen'),
  page('ways', () => import('#web/features/design/alternatives/index.ts'), 'AlternativesScreen'),
  page('gear', () => import('#web/features/library/gear/index.ts'), 'GearScreen'),
  ...takePages(),
];

/** A rig's document is asked for while the scripts of its page still come. */
const rigRoute = (store: AppStore): RouteObject => ({
  ...page('/rigs/:rigId', () => import('./OpenRig.tsx'), 'RigFrame'),
  loader: ({ params }) => {
    store.dispatch(api.endpoints.rig.initiate(params.rigId!, { forceRefetch: true, subscribe: false }));
    return null;
  },
  shouldRevalidate: ({ currentParams, nextParams }) => currentParams.rigId !== nextParams.rigId,
  children: pagesOfRig(),
});

export const makeRouter = (store: AppStore) =>
  createBrowserRouter([
    {
      element: <Shell />,
      errorElement: <Broken />,
      hydrateFallbackElement: <p className="page quiet">{say.openingTitle()}</p>,
      children: [
        page('/', () => import('#web/features/library/rigs/index.ts'), 'RigsScreen'),
        page('/new', () => import('#web/features/design/first-desk/index.ts'), 'FirstDeskScreen'),
        ...takePages(),
        page('/round-trip', () => import('#web/features/measure/round-trip/index.ts'), 'RoundTripScreen'),
        page('/hand', () => import('#web/features/live/phone/index.ts'), 'PhoneScreen'),
        page('/hand/:rigId', () => import('#web/features/live/phone/index.ts'), 'PhoneScreen'),
        page('/versions/:rigId', () => import('#web/features/library/versions/index.ts'), 'RescueScreen'),
        page('/slate', () => import('#web/features/measure/slate/index.ts'), 'SlateScreen'),
        page('/tune', () => import('#web/features/measure/tap-test/index.ts'), 'TuneScreen'),
        rigRoute(store),
        { path: '*', element: <Broken /> },
      ],
    },
  ]);
