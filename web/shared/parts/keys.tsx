import { createContext, type ReactNode, useCallback, useContext, useEffect, useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { frame } from '#words/index.ts';

/** A key of the view, for the list under `?` and for the button that bears it. */
export interface KeyHint {
  readonly keys: string;
  readonly label: string;
  /** The frame's, on every page alike. */
  readonly everywhere: boolean;
  /** Runs it; absent for keys that a focused element handles itself. */
  readonly run?: () => void;
}

type Add = (hint: KeyHint) => () => void;
/** Separate from the list itself, so that views with keys aren't drawn again whenever a key is added or removed. */
const AddContext = createContext<Add>(() => () => undefined);
const HintsContext = createContext<readonly KeyHint[]>([]);

const EverywhereContext = createContext(false);

/** Keys that are bound in it are the frame's: they are the same on every page. */
export const KeysEverywhere = ({ children }: { children: ReactNode }) => (
  <EverywhereContext.Provider value={true}>{children}</EverywhereContext.Provider>
);

export function KeysProvider({ children }: { children: ReactNode }) {
  const [hints, setHints] = useState<readonly KeyHint[]>([]);
  const add = useCallback<Add>((hint) => {
    setHints((all) => [...all, hint]);
    return () => setHints((all) => all.filter((h) => h !== hint));
  }, []);
  return (
    <AddContext.Provider value={add}>
      <HintsContext.Provider value={hints}>{children}</HintsContext.Provider>
    </AddContext.Provider>
  );
}

export const useKeyHints = (): readonly KeyHint[] => useContext(HintsContext);

/** Lists keys under `?` that a focused element of the view handles itself. */
export function useKeyHint(keys: string, label: string): void {
  const add = useContext(AddContext);
  useEffect(() => add({ keys, label, everywhere: false }), [add, keys, label]);
}

/** Keys that go on while they are held down: what moves, and undo. Everything else is done once a press. */
const MOVES = /arrow|plus|minus|mod\+|^[jk]\b/;

/** Binds keys ('mod+z', 'arrowleft', '?') to what they do while the caller is shown, and lists them under `?`. */
export function useKey(keys: string, label: string, run: () => void, enabled = true): void {
  const add = useContext(AddContext);
  const everywhere = useContext(EverywhereContext);
  // What it does changes with every drawing, and the list of keys does not.
  const latest = useRef(run);
  latest.current = run;
  useEffect(
    () => (enabled ? add({ keys, label, everywhere, run: () => latest.current() }) : undefined),
    [add, keys, label, everywhere, enabled],
  );
  // '+' joins keys in the library's own words, and on most keyboards it needs Shift.
  const plus = keys.includes('plus');
  useHotkeys(
    keys.replace('plus', '+'),
    (event) => {
      if (plus && (event.ctrlKey || event.metaKey || event.altKey)) return;
      event.preventDefault();
      if (event.repeat && !MOVES.test(keys)) return;
      run();
    },
    {
      enabled,
      useKey: true,
      // A mark in a lane is a slider: it takes the keys that it knows, the view's own keys go on.
      enableOnFormTags: ['slider'],
      ...(plus ? { splitKey: '|', ignoreModifiers: true } : {}),
    },
    [run, enabled],
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
/** A key as it is printed on a keyboard: 'mod+z' is Ctrl Z. */
export const showKeys = (keys: string): string =>
  keys
    .split(',')
    .map((one) =>
      one
        .split('+')
        .map((k) => SHOWN[k] ?? k)
        .join(' '),
    )
    .join(frame.or());
