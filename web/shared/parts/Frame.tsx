import { Button } from '@chakra-ui/react';
import { memo, type ReactNode, useEffect, useRef } from 'react';
import { Link, NavLink, useLocation, useNavigate } from 'react-router';
import type { State } from '#core/signal/index.ts';
import { search as find, frame, help, type Message } from '#words/index.ts';
import { KeysEverywhere, useKey, useKeyHints } from './keys.tsx';
import { rich } from './rich.tsx';
import { StateMark } from './StateMark.tsx';

interface NavEntry {
  readonly to: string;
  readonly label: string;
  /** With Shift, it opens the page from any other: capital letters are the frame's, small ones the view's. */
  readonly key?: string;
  readonly state?: State;
  /** How many things wait there; 0 is not shown. */
  readonly waits?: number;
  /** What is good there rests on something that no one has looked at. */
  readonly unconfirmed?: boolean;
}

interface Props {
  readonly nav: readonly NavEntry[];
  readonly more?: readonly NavEntry[];
  readonly top: ReactNode;
  /** Under the top line: what comes next. */
  readonly next?: ReactNode;
  readonly children: ReactNode;
}

/** The frame of every screen: name, stages, top line, page. */
export function Frame({ nav, more = [], top, next, children }: Props) {
  return (
    <div className="frame">
      <a className="frame-skip" href="#page">
        {frame.skipToPage()}
      </a>
      <div className="frame-name">
        <Link to="/">Mellow Tap</Link>
      </div>
      <KeysEverywhere>
        <header className="frame-top">{top}</header>
        <nav className="frame-nav" aria-label={frame.stages()}>
          <OfShell hintKey="/" name={find.title()} says={find.button} />
          {nav.map((entry) => (
            <Entry key={entry.to} {...entryOf(entry)} />
          ))}
          {more.length > 0 && <hr />}
          {more.map((entry) => (
            <Entry key={entry.to} {...entryOf(entry)} />
          ))}
          <hr />
          <OfShell hintKey="?" name={help.title()} says={help.button} />
        </nav>
        {next}
      </KeysEverywhere>
      <Body>{children}</Body>
    </div>
  );
}

/** What scrolls; another page of it is begun at its top, and keys scroll it at once. */
function Body({ children }: { children: ReactNode }) {
  const { pathname } = useLocation();
  const body = useRef<HTMLDivElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: each page anew
  useEffect(() => {
    const { activeElement } = document;
    const isFree = activeElement === null || activeElement === document.body || activeElement.closest('.frame-nav');
    body.current?.scrollTo?.({ top: 0 });
    if (isFree) body.current?.focus({ preventScroll: true });
  }, [pathname]);
  return (
    <div id="page" className="frame-body" ref={body} tabIndex={-1}>
      {children}
    </div>
  );
}

interface OfShellProps {
  readonly hintKey: string;
  readonly name: string;
  readonly says: Message;
}

/** Does what a key of the whole app does, where the page has it: the search, and help. */
function OfShell({ hintKey, name, says }: OfShellProps) {
  const run = useKeyHints().find((hint) => hint.keys === hintKey)?.run;
  return (
    run && (
      <Button size="sm" className="frame-search" aria-label={name} onClick={run}>
        {rich(says, {})}
      </Button>
    )
  );
}

const entryOf = ({ key, ...entry }: NavEntry) => ({ ...entry, ...(key && { letter: key }) });

type EntryProps = Omit<NavEntry, 'key'> & { readonly letter?: string };

/** Drawn again only where its own state is another one: the frame is drawn with every edit. */
const Entry = memo(function Entry({ to, label, letter, state, waits = 0, unconfirmed = false }: EntryProps) {
  const navigate = useNavigate();
  useKey(`shift+${letter}`, label, () => navigate(to), letter !== undefined);
  return (
    <NavLink to={to} end title={letter && `⇧${letter.toUpperCase()}`}>
      {state ? <StateMark state={state} unconfirmed={unconfirmed} /> : <span className="mark" />}
      {label}
      {waits > 0 && (
        <span className="frame-waits">
          {waits}
          <span className="visually-hidden"> {frame.toDo()}</span>
        </span>
      )}
    </NavLink>
  );
});
