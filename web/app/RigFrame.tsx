import { lazy, Suspense } from 'react';
import { useParams } from 'react-router';
import { frame } from '#words/index.ts';

/** A rig's frame needs the whole model; it comes with the first rig screen. */
const OpenRig = lazy(async () => ({ default: (await import('./OpenRig.tsx')).OpenRig }));

export function RigFrame() {
  const { rigId = '' } = useParams();
  return (
    <Suspense fallback={<p className="page quiet">{frame.opening()}</p>}>
      <OpenRig key={rigId} rigId={rigId} />
    </Suspense>
  );
}
