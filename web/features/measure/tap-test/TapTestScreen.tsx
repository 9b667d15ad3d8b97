import { Button } from '@chakra-ui/react';
import { useParams, useSearchParams } from 'react-router';
import type { Rig } from '#core/model/rig/index.ts';
import { rich, Term, useKey } from '#web/shared/parts/index.ts';
import { selectRig, useAppSelector } from '#web/shared/store/index.ts';
import { tapTest as say } from '#words/index.ts';
import { Play } from './Play.tsx';
import { Readings } from './Readings.tsx';
import { Takes } from './Takes.tsx';
import { useTap } from './useTap.ts';

/** The tap test: every source plays its own tune, every destination records one take, and the takes show who gets what. */
export function TapTestScreen() {
  const rig = useAppSelector(selectRig);
  const { rigId } = useParams();
  return rig && rigId ? <TapTest key={rigId} rigId={rigId} rig={rig} /> : null;
}

const VIEWS = [
  ['play', say.play()],
  ['takes', say.takes()],
  ['read', say.readings()],
] as const;
type View = (typeof VIEWS)[number][0];

function TapTest({ rigId, rig }: { rigId: string; rig: Rig }) {
  const tap = useTap(rigId, rig);
  const [params, setParams] = useSearchParams();
  const asked = VIEWS.find(([v]) => v === params.get('view'))?.[0];
  const view: View = asked ?? (tap.read.length > 0 ? 'read' : 'play');
  const go = (next: View) =>
    setParams(
      (all) => {
        all.set('view', next);
        return all;
      },
      { replace: true },
    );
  const step = (by: number) => go(VIEWS[(VIEWS.findIndex(([v]) => v === view) + by + VIEWS.length) % VIEWS.length]![0]);
  useKey('n', say.nextStepTapTest(), () => step(1));
  useKey('b', say.previousStepTapTest(), () => step(-1));
  const nobody = rig.listeners.length === 0 || rig.sources.length === 0;
  return (
    <main className="frame-page">
      <div className="page">
        <div className="spread">
          <h1>
            <Term id="tap-test">{say.tapTest()}</Term>
          </h1>
          <Button
            disabled={tap.takes.length === 0 && !Object.values(tap.kept.answers).some(Boolean)}
            onClick={tap.beginAnew}
          >
            {say.startOver()}
          </Button>
        </div>
        {nobody ? (
          <p className="quiet">{rich(say.addSourcesAndDestinations, {}, `/rigs/${rigId}/plan`)}</p>
        ) : (
          <>
            <nav className="run-parts" aria-label={say.stepsTapTest()}>
              {VIEWS.map(([id, name]) => (
                <button key={id} type="button" aria-current={id === view ? 'page' : undefined} onClick={() => go(id)}>
                  {name}
                  {id === 'takes' && tap.takes.length > 0 && ` (${tap.takes.length})`}
                </button>
              ))}
            </nav>
            {tap.full && <p className="fix">{say.browserStorageIsFull()}</p>}
            {view === 'play' && <Play rigId={rigId} rig={rig} tap={tap} onDone={() => go('takes')} />}
            {view === 'takes' && <Takes rig={rig} tap={tap} onDone={() => go('read')} />}
            {view === 'read' && <Readings rigId={rigId} rig={rig} tap={tap} onTakes={() => go('takes')} />}
          </>
        )}
      </div>
    </main>
  );
}
