import type { ReactNode } from 'react';
import { useParams } from 'react-router';
import { Frame, rich } from '#web/shared/parts/index.ts';
import { frame, rigs, take as say } from '#words/index.ts';

/** The frame of what is done with takes: inside a rig its own, else one with the way to a rig. */
export function TakeFrame({ children }: { children: ReactNode }) {
  const { rigId } = useParams();
  if (rigId) return children;
  return (
    <Frame
      nav={[{ to: '/', label: rigs.title() }]}
      more={[{ to: '/bench', label: frame.measure() }]}
      top={
        <span>
          <span className="strong">{say.measuringWithoutRig()}</span> {rich(say.openRigToAdd, {}, '/')}
        </span>
      }
    >
      {children}
    </Frame>
  );
}
