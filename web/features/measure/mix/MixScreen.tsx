import { useEffect, useMemo, useState } from 'react';
import { useParams } from 'react-router';
import { WorkLine } from '#web/shared/jobs/index.ts';
import { hueOf, Term } from '#web/shared/parts/index.ts';
import { selectRig, useAppSelector } from '#web/shared/store/index.ts';
import { keepForTakes, readForTakes, type TakeAtHand, TakeGate, TakePage, useSound } from '#web/shared/take/index.ts';
import { mix as say } from '#words/index.ts';
import { Laid } from './Laid.tsx';
import { firstSetup, MixSetup, sourceOfTrack } from './setup.ts';
import { useBalance } from './useBalance.ts';

const MAX_TAKES = 16;
const KEPT_AS = 'balance';

/** Balance: the faders that put every track of a take at its distance under the voice, and the whole at its loudness. */
export function MixScreen() {
  return (
    <TakeGate title={say.mix()} most={MAX_TAKES} least={1} asks={say.chooseTakeWithSeveral()}>
      {(takes, bench) => <Mixing key={takes.map((t) => t.id).join(' ')} takes={takes} bench={bench} />}
    </TakeGate>
  );
}

function Mixing({ takes, bench }: { takes: readonly TakeAtHand[]; bench: string }) {
  const { rigId } = useParams();
  const rig = useAppSelector(selectRig);
  const own = rigId ? rig : null;
  const takeIds = useMemo(() => takes.map((t) => t.id), [takes]);
  const sound = useSound(takeIds);
  const [setup, setSetup] = useState<MixSetup | null>(null);
  const { facts } = sound;
  const first = () =>
    firstSetup(
      facts ?? [],
      takes.map((t) => t.name),
      own,
    );
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was kept is for these takes, whatever becomes of the rig
  useEffect(() => {
    if (facts) setSetup(readForTakes(KEPT_AS, takeIds, MixSetup) ?? first());
  }, [facts]);
  const change = (next: MixSetup) => {
    setSetup(next);
    keepForTakes(KEPT_AS, takeIds, next);
  };
  const balancing = useBalance(sound, setup);
  return (
    <TakePage
      title={
        <>
          <Term id="balance">{say.mix()}</Term>: {takes.map((t) => t.name).join(', ')}
        </>
      }
      bench={bench}
    >
      <WorkLine
        task={sound.work.task}
        name={sound.work.task?.name}
        onStop={sound.work.stop}
        onAgain={sound.work.again}
      />
      {setup && facts && (
        <Laid
          sound={sound}
          setup={setup}
          change={change}
          forget={() => change(first())}
          balancing={balancing}
          seconds={Math.max(...facts.map((f) => f.seconds))}
          hues={setup.tracks.map((t, i) => {
            const source = sourceOfTrack(own, t.name);
            return source ? hueOf(source) : `var(--s${(i % 8) + 1})`;
          })}
          letters={setup.tracks.map(
            (t, i) => sourceOfTrack(own, t.name)?.letter ?? t.name.trim()[0]?.toUpperCase() ?? `${i + 1}`,
          )}
        />
      )}
    </TakePage>
  );
}
