export {
  api,
  archiveUrl,
  contentUrl,
  documentUrl,
  isOffline,
  newerNotes,
  photoUrl,
  sayProblem,
} from './api.ts';
export { openRig } from './autosave.ts';
export { keep, readKept } from './browser.ts';
export { readDraft, readNotesDraft, writeNotesDraft } from './drafts.ts';
export {
  findingsOf,
  ofRig,
  selectWireFindings,
  stageStatesOf,
  useSettledFindings,
  useSettledRig,
  wireFindingsOf,
} from './findings.ts';
export { newId } from './ids.ts';
export {
  recordEvent,
  removeEntry,
  selectDayLink,
  selectLastGoodRig,
  selectServerRevision,
  selectSession,
  selectSessions,
  selectUnreadable,
  selectWaiting,
} from './journal.ts';
export { keepLastRig, readLastRig } from './last-rig.ts';
export * from './open-rig.ts';
export type { SaveState } from './state.ts';
export { type AppStore, makeStore, useAppDispatch, useAppSelector, useAppStore } from './store.ts';
export { selectTour, tourBegun, tourLeft, tourMoved } from './tour.ts';
export { forgetUpload, uploadIdOf, uploads } from './upload.ts';
export { useJournal } from './useJournal.ts';
export { usePhoneNews } from './usePhoneNews.ts';
