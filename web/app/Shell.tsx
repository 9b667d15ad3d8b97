import { Button, Dialog, Portal } from '@chakra-ui/react';
import { useState } from 'react';
import { Outlet } from 'react-router';
import { KeysProvider, useKey, useKeyHints } from '#web/parts/index.ts';
import { common, frame } from '#words/index.ts';

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
    .join(frame.or());

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
                <Button>{common.close()}</Button>
              </Dialog.ActionTrigger>
            </Dialog.Footer>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
