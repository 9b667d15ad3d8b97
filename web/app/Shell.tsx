import { lazy, Suspense, useState } from 'react';
import { Outlet } from 'react-router';
import { InBackground } from '#web/shared/jobs/index.ts';
import { KeysProvider, useKey } from '#web/shared/parts/index.ts';
import { search as find, frame } from '#words/index.ts';

/** What every page has: the keys, and their list under `?`. */
export function Shell() {
  return (
    <KeysProvider>
      <Outlet />
      <KeyList />
      <Find />
      <InBackground />
    </KeysProvider>
  );
}

/** The search knows devices and issues of a rig: it comes with the first search. */
const SearchDialog = lazy(async () => ({ default: (await import('./search/index.ts')).SearchDialog }));

function Find() {
  const [open, setOpen] = useState(false);
  useKey('/', find.searchKey(), () => setOpen(true));
  return <Suspense fallback={null}>{open && <SearchDialog onClose={() => setOpen(false)} />}</Suspense>;
}

const KeyDialog = lazy(async () => ({ default: (await import('./KeyDialog.tsx')).KeyDialog }));

function KeyList() {
  const [open, setOpen] = useState(false);
  useKey('?', frame.listKeys(), () => setOpen(true));
  return <Suspense fallback={null}>{open && <KeyDialog onClose={() => setOpen(false)} />}</Suspense>;
}
