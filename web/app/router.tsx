import { createBrowserRouter } from 'react-router';
import { frame as say } from '#words/index.ts';
import { Broken } from './Broken.tsx';
import { RigFrame } from './RigFrame.tsx';
import { Shell } from './Shell.tsx';

/** Screens come when they are opened; the frame is there at once. */
export const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Broken />,
    hydrateFallbackElement: <p className="page quiet">{say.openingTitle()}</p>,
    children: [
      {
        path: '/',
        lazy: async () => ({ Component: (await import('#web/features/library/rigs/index.ts')).RigsScreen }),
      },
      {
        path: '/new',
        lazy: async () => ({ Component: (await import('#web/features/design/first-desk/index.ts')).FirstDeskScreen }),
      },
      {
        path: '/bench',
        lazy: async () => ({ Component: (await import('#web/features/measure/takes/index.ts')).TakesScreen }),
      },
      {
        path: '/bench/balance',
        lazy: async () => ({ Component: (await import('#web/features/measure/mix/index.ts')).MixScreen }),
      },
      {
        path: '/bench/try',
        lazy: async () => ({ Component: (await import('#web/features/measure/process/index.ts')).ProcessScreen }),
      },
      {
        path: '/bench/join',
        lazy: async () => ({ Component: (await import('#web/features/measure/join/index.ts')).JoinScreen }),
      },
      {
        path: '/bench/blind',
        lazy: async () => ({ Component: (await import('#web/features/measure/blind-test/index.ts')).BlindTestScreen }),
      },
      {
        path: '/round-trip',
        lazy: async () => ({ Component: (await import('#web/features/measure/round-trip/index.ts')).RoundTripScreen }),
      },
      {
        path: '/hand',
        lazy: async () => ({ Component: (await import('#web/features/live/phone/index.ts')).PhoneScreen }),
      },
      {
        path: '/hand/:rigId',
        lazy: async () => ({ Component: (await import('#web/features/live/phone/index.ts')).PhoneScreen }),
      },
      {
        path: '/versions/:rigId',
        lazy: async () => ({ Component: (await import('#web/features/library/versions/index.ts')).RescueScreen }),
      },
      {
        path: '/slate',
        lazy: async () => ({ Component: (await import('#web/features/measure/slate/index.ts')).SlateScreen }),
      },
      {
        path: '/tune',
        lazy: async () => ({ Component: (await import('#web/features/measure/tap-test/index.ts')).TuneScreen }),
      },
      {
        path: '/rigs/:rigId',
        element: <RigFrame />,
        children: [
          {
            path: 'plan',
            lazy: async () => ({ Component: (await import('#web/features/design/plan/index.ts')).PlanScreen }),
          },
          {
            path: 'wire',
            lazy: async () => ({ Component: (await import('#web/features/design/wire/index.ts')).WireScreen }),
          },
          {
            path: 'route',
            lazy: async () => ({ Component: (await import('#web/features/design/route/index.ts')).RouteScreen }),
          },
          {
            path: 'level',
            lazy: async () => ({ Component: (await import('#web/features/design/level/index.ts')).LevelScreen }),
          },
          {
            path: 'sync',
            lazy: async () => ({ Component: (await import('#web/features/design/sync/index.ts')).SyncScreen }),
          },
          {
            path: 'sync/paths',
            lazy: async () => ({
              Component: (await import('#web/features/measure/sync-test/index.ts')).SyncTestScreen,
            }),
          },
          {
            path: 'run',
            lazy: async () => ({ Component: (await import('#web/features/live/run/index.ts')).RunScreen }),
          },
          {
            path: 'tap',
            lazy: async () => ({ Component: (await import('#web/features/measure/tap-test/index.ts')).TapTestScreen }),
          },
          {
            path: 'trouble',
            lazy: async () => ({
              Component: (await import('#web/features/live/troubleshoot/index.ts')).TroubleshootScreen,
            }),
          },
          {
            path: 'measured',
            lazy: async () => ({
              Component: (await import('#web/features/measure/measurements/index.ts')).MeasurementsScreen,
            }),
          },
          {
            path: 'log',
            lazy: async () => ({ Component: (await import('#web/features/live/log/index.ts')).LogScreen }),
          },
          {
            path: 'versions',
            lazy: async () => ({ Component: (await import('#web/features/library/versions/index.ts')).VersionsScreen }),
          },
          {
            path: 'desk',
            lazy: async () => ({ Component: (await import('#web/features/live/to-do/index.ts')).ToDoScreen }),
          },
          {
            path: 'beside',
            lazy: async () => ({ Component: (await import('#web/features/design/variants/index.ts')).VariantsScreen }),
          },
          {
            path: 'ways',
            lazy: async () => ({
              Component: (await import('#web/features/design/alternatives/index.ts')).AlternativesScreen,
            }),
          },
          {
            path: 'gear',
            lazy: async () => ({ Component: (await import('#web/features/library/gear/index.ts')).GearScreen }),
          },
          {
            path: 'bench/balance',
            lazy: async () => ({ Component: (await import('#web/features/measure/mix/index.ts')).MixScreen }),
          },
          {
            path: 'bench/try',
            lazy: async () => ({ Component: (await import('#web/features/measure/process/index.ts')).ProcessScreen }),
          },
          {
            path: 'bench/join',
            lazy: async () => ({ Component: (await import('#web/features/measure/join/index.ts')).JoinScreen }),
          },
          {
            path: 'bench/blind',
            lazy: async () => ({
              Component: (await import('#web/features/measure/blind-test/index.ts')).BlindTestScreen,
            }),
          },
          {
            path: 'bench',
            lazy: async () => ({ Component: (await import('#web/features/measure/takes/index.ts')).TakesScreen }),
          },
        ],
      },
      { path: '*', element: <Broken /> },
    ],
  },
]);
