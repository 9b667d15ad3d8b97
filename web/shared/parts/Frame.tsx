import { Button } from '@chakra-ui/react';
import { memo, type ReactNode } from 'react';
import { Link, NavLink } from 'react-router';
import type { State } from '#core/signal/index.ts';
import { search as find, frame } from '#words/index.ts';
import { useKeyHints } from './keys.tsx';
import { rich } from './rich.tsx';
import { StateMark } from './StateMark.tsx';

interface NavEntry {
  readonly to: string;
  readonly label: string;
  readonly state?: State;
}

interface Props {
  readonly nav: readonly NavEntry[];
  readonly more?: readonly NavEntry[];
  readonly top: ReactNode;
  readonly children: ReactNode;
}

/** The frame of every screen: name, stages, top line, page. */
export function Frame({ nav, more = [], top, children }: Props) {
  return (
    <div className="frame">
      <div className="frame-name">
        <Link to="/">Mellow Tap</Link>
      </div>
      <header className="frame-top">{top}</header>
      <nav className="frame-nav" aria-label={frame.stages()}>
        <SearchButton />
        {nav.map((entry) => (
          <Entry key={entry.to} {...entry} />
        ))}
        {more.length > 0 && <hr />}
        {more.map((entry) => (
          <Entry key={entry.to} {...entry} />
        ))}
      </nav>
      <div className="frame-body">{children}</div>
    </div>
  );
}

/** Opens the search of the whole app, where the page has one. */
function SearchButton() {
  const run = useKeyHints().find((hint) => hint.keys === '/')?.run;
  return (
    run && (
      <Button size="sm" className="frame-search" aria-label={find.title()} onClick={run}>
        {rich(find.button, {})}
      </Button>
    )
  );
}

/** Drawn again only where its own state is another one: the frame is drawn with every edit. */
const Entry = memo(function Entry({ to, label, state }: NavEntry) {
  return (
    <NavLink to={to} end>
      {state ? <StateMark state={state} /> : <span className="mark" />}
      {label}
    </NavLink>
  );
});
