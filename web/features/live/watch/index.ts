export { ALARM_WORDS, complaintOf, seenBy } from './alarms.ts';
export { useWatchers } from './useWatchers.ts';
export { WatchNotice } from './WatchNotice.tsx';
export { WatchPanel } from './WatchPanel.tsx';
export { watchers } from './watchers.ts';
