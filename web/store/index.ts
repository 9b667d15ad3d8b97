export {
  api,
  archiveUrl,
  bringBack,
  contentUrl,
  isOffline,
  newerNotes,
  photoUrl,
  sayProblem,
  uploadPhoto,
  uploadTake,
} from './api.ts';
export * from './desk.ts';
export { readDraft, readNotesDraft, writeNotesDraft } from './drafts.ts';
export { findingsOf, ofRig, selectWireFindings, stageStatesOf, useSettledFindings, useSettledRig } from './findings.ts';
export {
  type DayLink,
  type DayTold,
  newId,
  selectDayLink,
  selectSession,
  selectSessions,
  selectWaiting,
  tellDay,
} from './journal.ts';
export { type AppStore, makeStore, useAppDispatch, useAppSelector } from './store.ts';
export { useHandTicks } from './useHandTicks.ts';
export { useJournal } from './useJournal.ts';
