export { api, contentUrl, isOffline, newerNotes, photoUrl, sayProblem, uploadPhoto, uploadTake } from './api.ts';
export * from './desk.ts';
export { readDraft, readNotesDraft, writeNotesDraft } from './drafts.ts';
export { findingsOf, ofRig, selectWireFindings, stageStatesOf, useSettledFindings, useSettledRig } from './findings.ts';
export { type AppStore, makeStore, useAppDispatch, useAppSelector } from './store.ts';
