import { Button } from '@chakra-ui/react';
import { useNavigate } from 'react-router';
import { rich, useKey } from '#web/shared/parts/index.ts';
import { takes as say } from '#words/index.ts';
import type { BenchTake } from './useTake.ts';

/** Next steps with the takes on Measure: balance, try processing, blind comparison. */
export function Onwards({ bench, rigId }: { bench: readonly BenchTake[]; rigId: string | null }) {
  const navigate = useNavigate();
  const ids = bench.map((t) => t.id).join(',');
  const go = (where: string) => void navigate(`${rigId ? `/rigs/${rigId}` : ''}/bench/${where}?takes=${ids}`);
  const heard = bench.length > 0 && bench.every((t) => t.look?.sound);
  const several = bench.length > 1 || (bench[0]?.look?.sound?.channels ?? 1) > 2;
  const alone = heard && bench.length === 1;
  useKey('b', say.mixAsTracks(), () => go('balance'), heard && several);
  useKey('y', say.tryProcessingOnIt(), () => go('try'), alone);
  useKey('x', say.compareTwoBlind(), () => go('blind'), heard && bench.length === 2);
  if (!heard) return null;
  return (
    <p className="row">
      {several && <Button onClick={() => go('balance')}>{rich(say.mixAsTracksB, {})}</Button>}
      {alone && <Button onClick={() => go('try')}>{rich(say.tryProcessingOnItY, {})}</Button>}
      {bench.length === 2 && <Button onClick={() => go('blind')}>{rich(say.compareTwoBlindX, {})}</Button>}
    </p>
  );
}
