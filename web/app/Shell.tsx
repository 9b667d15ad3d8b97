import { Button, Dialog, Portal } from '@chakra-ui/react';
import { lazy, Suspense, useState } from 'react';
import { Outlet } from 'react-router';
import { KeysProvider, showKeys, Table, useKey, useKeyHints } from '#web/shared/parts/index.ts';
import { common, search as find, frame } from '#words/index.ts';

/** What every page has: the keys, and their list under `?`. */
export function Shell() {
  return (
    <KeysProvider>
      <Outlet />
      <KeyList />
      <Find />
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

function KeyList() {
  const [open, setOpen] = useState(false);
  useKey('?', frame.listKeys(), () => setOpen(true));
  const hints = useKeyHints();
  return (
    <Dialog.Root lazyMount unmountOnExit open={open} onOpenChange={(e) => setOpen(e.open)}>
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content>
            <Dialog.Header>
              <Dialog.Title>{frame.keysOfView()}</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              <Table>
                <tbody>
                  {hints.map((hint) => (
                    <tr key={hint.keys + hint.label}>
                      <td>
                        <kbd>{showKeys(hint.keys)}</kbd>
                      </td>
                      <td>{hint.label}</td>
                    </tr>
                  ))}
                </tbody>
              </Table>
            </Dialog.Body>
            <Dialog.Footer>
              <Dialog.ActionTrigger asChild>
                <Button>{common.close()}</Button>
              </Dialog.ActionTrigger>
            </Dialog.Footer>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
