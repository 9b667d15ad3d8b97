import type { ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import { Frame } from '#web/parts/index.ts';
import { frame } from '#words/index.ts';

/** The frame of what is done with takes: inside a rig its own, else one with the way to a rig. */
export function TakeFrame({ children }: { children: ReactNode }) {
  const { rigId } = useParams();
  if (rigId) return children;
  return (
    <Frame
      nav={[{ to: '/', label: 'Rigs' }]}
      more={[{ to: '/bench', label: frame.measure() }]}
      top={
        <span>
          <span className="strong">Measuring without a rig.</span> <Link to="/">Open a rig</Link> to take what you
          measure into it.
        </span>
      }
    >
      {children}
    </Frame>
  );
}
