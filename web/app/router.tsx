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
      { path: '/', lazy: async () => ({ Component: (await import('../rigs/index.ts')).RigsScreen }) },
      { path: '/new', lazy: async () => ({ Component: (await import('../first-desk/index.ts')).FirstDeskScreen }) },
      { path: '/bench', lazy: async () => ({ Component: (await import('../bench/index.ts')).BenchScreen }) },
      { path: '/bench/balance', lazy: async () => ({ Component: (await import('../mix/index.ts')).MixScreen }) },
      { path: '/bench/try', lazy: async () => ({ Component: (await import('../treat/index.ts')).TreatScreen }) },
      { path: '/bench/join', lazy: async () => ({ Component: (await import('../join/index.ts')).JoinScreen }) },
      { path: '/bench/blind', lazy: async () => ({ Component: (await import('../blind/index.ts')).BlindScreen }) },
      { path: '/round-trip', lazy: async () => ({ Component: (await import('../trip/index.ts')).TripScreen }) },
      { path: '/hand', lazy: async () => ({ Component: (await import('../hand/index.ts')).HandScreen }) },
      { path: '/hand/:rigId', lazy: async () => ({ Component: (await import('../hand/index.ts')).HandScreen }) },
      {
        path: '/versions/:rigId',
        lazy: async () => ({ Component: (await import('../versions/index.ts')).RescueScreen }),
      },
      { path: '/slate', lazy: async () => ({ Component: (await import('../slate/index.ts')).SlateScreen }) },
      { path: '/tune', lazy: async () => ({ Component: (await import('../tap/index.ts')).TuneScreen }) },
      {
        path: '/rigs/:rigId',
        element: <RigFrame />,
        children: [
          { path: 'plan', lazy: async () => ({ Component: (await import('../plan/index.ts')).PlanScreen }) },
          { path: 'wire', lazy: async () => ({ Component: (await import('../wire/index.ts')).WireScreen }) },
          { path: 'route', lazy: async () => ({ Component: (await import('../route/index.ts')).RouteScreen }) },
          { path: 'level', lazy: async () => ({ Component: (await import('../level/index.ts')).LevelScreen }) },
          { path: 'sync', lazy: async () => ({ Component: (await import('../sync/index.ts')).SyncScreen }) },
          { path: 'sync/paths', lazy: async () => ({ Component: (await import('../paths/index.ts')).PathsScreen }) },
          { path: 'run', lazy: async () => ({ Component: (await import('../run/index.ts')).RunScreen }) },
          { path: 'tap', lazy: async () => ({ Component: (await import('../tap/index.ts')).TapScreen }) },
          { path: 'trouble', lazy: async () => ({ Component: (await import('../trouble/index.ts')).TroubleScreen }) },
          {
            path: 'measured',
            lazy: async () => ({ Component: (await import('../measured/index.ts')).MeasuredScreen }),
          },
          { path: 'log', lazy: async () => ({ Component: (await import('../log/index.ts')).LogScreen }) },
          {
            path: 'versions',
            lazy: async () => ({ Component: (await import('../versions/index.ts')).VersionsScreen }),
          },
          { path: 'desk', lazy: async () => ({ Component: (await import('../desk/index.ts')).DeskScreen }) },
          { path: 'beside', lazy: async () => ({ Component: (await import('../variants/index.ts')).VariantsScreen }) },
          { path: 'ways', lazy: async () => ({ Component: (await import('../ways/index.ts')).WaysScreen }) },
          { path: 'gear', lazy: async () => ({ Component: (await import('../gear/index.ts')).GearScreen }) },
          { path: 'bench/balance', lazy: async () => ({ Component: (await import('../mix/index.ts')).MixScreen }) },
          { path: 'bench/try', lazy: async () => ({ Component: (await import('../treat/index.ts')).TreatScreen }) },
          { path: 'bench/join', lazy: async () => ({ Component: (await import('../join/index.ts')).JoinScreen }) },
          { path: 'bench/blind', lazy: async () => ({ Component: (await import('../blind/index.ts')).BlindScreen }) },
          { path: 'bench', lazy: async () => ({ Component: (await import('../bench/index.ts')).BenchScreen }) },
        ],
      },
      { path: '*', element: <Broken /> },
    ],
  },
]);
