export { ALARM_WORDS, complaintOf, type Seen, seenBy } from './alarms.ts';
export { useWatchers } from './useWatchers.ts';
export { WatchNotice } from './WatchNotice.tsx';
export { WatchPanel } from './WatchPanel.tsx';
export { type Watcher, watchers } from './watchers.ts';
