import { type Message, tour as say } from '#words/index.ts';

/** What has happened on the practice rig since a step began. */
interface Since {
  /** Of the open page: its address below the rig's, such as 'wire', and its query. */
  readonly page: string;
  readonly query: URLSearchParams;
  /** Changes made to the rig since the step began; undone ones take away. */
  readonly changes: number;
  /** Entries in the log since then. */
  readonly entries: number;
  /** What the step points at was pressed, or a key was pressed in it. */
  readonly touched: boolean;
}

/** A thing to do on a real page. */
export interface TourStep {
  readonly id: string;
  /** Where it is done, below the rig's address. */
  readonly page: string;
  readonly title: Message;
  readonly says: Message;
  /** What to press: a CSS selector on that page. */
  readonly at: string;
  readonly isDone: (since: Since) => boolean;
}

export const TOUR: readonly TourStep[] = [
  {
    id: 'next',
    page: 'next',
    title: say.nextTitle,
    says: say.nextSays,
    at: '.frame-next > .row',
    isDone: (since) => since.changes > 0,
  },
  {
    id: 'wire',
    page: 'wire',
    title: say.wireTitle,
    says: say.wireSays,
    at: '[role=application]',
    isDone: (since) => since.page === 'wire' && since.query.has('finding'),
  },
  {
    id: 'fix',
    page: 'wire',
    title: say.fixTitle,
    says: say.fixSays,
    at: '.card',
    isDone: (since) => since.changes > 0,
  },
  {
    id: 'route',
    page: 'route',
    title: say.routeTitle,
    says: say.routeSays,
    at: '[role=grid]',
    isDone: (since) => since.page === 'route' && since.touched,
  },
  {
    id: 'sync',
    page: 'sync',
    title: say.syncTitle,
    says: say.syncSays,
    at: '.delay-settings',
    isDone: (since) => since.changes > 0,
  },
  {
    id: 'measure',
    page: 'bench',
    title: say.measureTitle,
    says: say.measureSays,
    at: '.page table',
    isDone: (since) => since.page === 'bench' && since.query.has('takes'),
  },
  {
    id: 'run',
    page: 'run',
    title: say.runTitle,
    says: say.runSays,
    at: '.run-step',
    isDone: (since) => since.entries > 0,
  },
];
