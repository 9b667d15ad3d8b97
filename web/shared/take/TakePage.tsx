import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { Page } from '#web/shared/parts/index.ts';
import { take as say } from '#words/index.ts';
import { TakeFrame } from './TakeFrame.tsx';
import { type TakeAtHand, useTakesInAddress } from './useTakesInAddress.ts';

interface GateProps {
  readonly title: ReactNode;
  /** Maximum and required number of takes. */
  readonly most: number;
  readonly least: number;
  /** A link to Measure, where takes are chosen. */
  readonly asks: string;
  readonly children: (takes: readonly TakeAtHand[], bench: string) => ReactNode;
}

/** A page about the takes that its address names: waits until it is known which are kept, and asks for them where they are not. */
export function TakeGate({ title, most, least, asks, children }: GateProps) {
  const { takes, missing, bench } = useTakesInAddress(most);
  const open = takes !== null && takes.length >= least && !missing;
  return (
    <TakeFrame>
      {open ? (
        children(takes, bench)
      ) : (
        <TakePage title={title} bench={bench.split('?')[0]!}>
          {takes === null ? (
            <p className="quiet">{say.opening()}</p>
          ) : (
            <p className={missing ? 'watch' : 'quiet'}>
              {missing ? say.oneTheseTakesWasnt() : ''}
              <Link to={bench.split('?')[0]!}>{asks}</Link>
            </p>
          )}
        </TakePage>
      )}
    </TakeFrame>
  );
}

/** What such a page looks like: its title, and the way back to Measure. */
export function TakePage({ title, bench, children }: { title: ReactNode; bench: string; children: ReactNode }) {
  return (
    <Page title={title} actions={<Link to={bench}>{say.backToMeasure()}</Link>}>
      {children}
    </Page>
  );
}
