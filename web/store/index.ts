export { api, contentUrl, isOffline, sayProblem, uploadTake } from './api.ts';
export * from './desk.ts';
export { readDraft } from './drafts.ts';
export { makeStore, useAppDispatch, useAppSelector } from './store.ts';
