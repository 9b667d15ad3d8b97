import { useEffect, useRef, useState } from 'react';
import type { DeskOptions, DeskRead } from '#core/intake/index.ts';
import { type DeskReader, openDeskReader } from '#web/shared/workers/index.ts';

/** Delay after the last key press until the text is read, ms. */
const PAUSE_MS = 120;

export interface Reading {
  /** The newest that is there; null before anything is read, or while nothing is typed. */
  readonly read: DeskRead | null;
  /** Whether it is of what is typed now. */
  readonly current: boolean;
  readonly failed: string | null;
}

interface State {
  /** What was read, and with what said of it. */
  readonly text: string;
  readonly options: DeskOptions | null;
  readonly read: DeskRead | null;
  readonly failed: string | null;
}

/** Reads a typed desk in a worker: the newest text is read next, and the former result stays until then. */
export function useDeskReading(text: string, options: DeskOptions): Reading {
  const reader = useRef<DeskReader | null>(null);
  const [state, setState] = useState<State>({ text: '', options: null, read: null, failed: null });
  useEffect(
    () => () => {
      reader.current?.close();
      reader.current = null;
    },
    [],
  );
  useEffect(() => {
    if (text.trim() === '') return undefined;
    let gone = false;
    const timer = setTimeout(() => {
      reader.current ??= openDeskReader();
      reader.current.read(text, options).then(
        (read) => !gone && setState({ text, options, read, failed: null }),
        (error: unknown) => !gone && setState({ text, options, read: null, failed: (error as Error).message }),
      );
    }, PAUSE_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [text, options]);
  if (text.trim() === '') return { read: null, current: true, failed: null };
  return { read: state.read, current: state.text === text && state.options === options, failed: state.failed };
}
