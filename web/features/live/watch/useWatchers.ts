import { useSyncExternalStore } from 'react';
import { type Watcher, watchers } from './watchers.ts';

export const useWatchers = (): readonly Watcher[] => useSyncExternalStore(watchers.subscribe, watchers.snapshot);
