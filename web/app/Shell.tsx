import { lazy, Suspense, useState } from 'react';
import { Outlet } from 'react-router';
import { InBackground } from '#web/shared/jobs/index.ts';
import { Announcements, KeysEverywhere, KeysProvider, useKeptFocus, useKey } from '#web/shared/parts/index.ts';
import { search as find, help } from '#words/index.ts';

/** What every page has: search under `/`, help under `?`. */
export function Shell() {
  useKeptFocus();
  return (
    <KeysProvider>
      <Outlet />
      <KeysEverywhere>
        <Help />
        <Find />
      </KeysEverywhere>
      <InBackground />
      <Announcements />
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

const HelpDialog = lazy(async () => ({ default: (await import('./help/index.ts')).HelpDialog }));

function Help() {
  const [open, setOpen] = useState(false);
  useKey('?', help.key(), () => setOpen(true));
  return <Suspense fallback={null}>{open && <HelpDialog onClose={() => setOpen(false)} />}</Suspense>;
}
