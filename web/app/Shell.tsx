import { Button, Dialog, Portal } from '@chakra-ui/react';
import { useState } from 'react';
import { Outlet } from 'react-router';
import { KeysProvider, useKey, useKeyHints } from '#web/parts/index.ts';

/** What every page has: the keys, and their list under `?`. */
export function Shell() {
  return (
    <KeysProvider>
      <Outlet />
      <KeyList />
    </KeysProvider>
  );
}

const SHOWN: Record<string, string> = {
  arrowleft: '←',
  arrowright: '→',
  arrowup: '↑',
  arrowdown: '↓',
  mod: 'Ctrl',
  shift: 'Shift',
  plus: '+',
  minus: '−',
  delete: 'Del',
  space: 'Space',
  tab: 'Tab',
};
const showKeys = (keys: string): string =>
  keys
    .split(',')
    .map((one) =>
      one
        .split('+')
        .map((k) => SHOWN[k] ?? k)
        .join(' '),
    )
    .join(' or ');

function KeyList() {
  const [open, setOpen] = useState(false);
  useKey('?', 'List the keys of this view', () => setOpen(true));
  const hints = useKeyHints();
  return (
    <Dialog.Root lazyMount unmountOnExit open={open} onOpenChange={(e) => setOpen(e.open)}>
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content>
            <Dialog.Header>
              <Dialog.Title>Keys of this view</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              <table className="table">
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
              </table>
            </Dialog.Body>
            <Dialog.Footer>
              <Dialog.ActionTrigger asChild>
                <Button>Close</Button>
              </Dialog.ActionTrigger>
            </Dialog.Footer>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
