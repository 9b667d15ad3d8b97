import { chakra } from '@chakra-ui/react';
import { useDeferredValue, useMemo } from 'react';
import { findListener, findSetting, findSource, findTypes, type Rig, settingKey } from '#core/model/rig/index.ts';
import { type MuteSeen, mutesOn } from '#core/routing/suggest/index.ts';
import { deviceName, type Evaluation, type Pair } from '#core/signal/index.ts';
import { route as say } from '#words/index.ts';

interface Props {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly pair: Pair;
}
const TOLD = 6;

/** Which mute takes a source from a listener, and who else loses what by it; worked out after the page is painted. */
export function Mutes({ rig, evaluation, pair }: Props) {
  const now = useMemo(() => ({ rig, evaluation, pair }), [rig, evaluation, pair]);
  const asked = useDeferredValue<typeof now | null>(now, null);
  const mutes = useMemo(() => asked && mutesOn(asked.rig, asked.evaluation, asked.pair), [asked]);
  if (mutes === null || asked !== now) return <p className="small quiet">{say.tryingMutesOnThis()}</p>;
  if (mutes.length === 0) return null;
  const types = findTypes(rig);
  const isIt = (t: MuteSeen['takes'][number]) => t.sourceId === pair.sourceId && t.listenerId === pair.listenerId;
  return (
    <section aria-label={say.mutesOnThisPath()}>
      <h2>{say.whatEachMuteDoes()}</h2>
      <ul>
        {mutes.slice(0, TOLD).map(({ deviceId, settingId, takes }) => (
          <chakra.li key={settingKey(deviceId, settingId)} marginTop="4px">
            {deviceName(rig, deviceId)}, {findSetting(rig, types, deviceId, settingId)?.name ?? settingId}{' '}
            <span className="quiet small">
              {sayTakes(
                rig,
                takes.filter(isIt).length > 0,
                takes.filter((t) => !isIt(t)),
              )}
            </span>
          </chakra.li>
        ))}
      </ul>
    </section>
  );
}

/** 'takes just this'; 'takes this, and Wren, voice from Backup recorder and 3 more'. */
function sayTakes(rig: Rig, takesIt: boolean, others: readonly MuteSeen['takes'][number][]): string {
  const start = takesIt ? say.silencesThis() : say.stillLeavesAnotherPath();
  const [first, ...more] = others;
  if (!first) return takesIt ? say.silencesOnlyThis() : start;
  const source = findSource(rig, first.sourceId)?.name ?? first.sourceId;
  const listener = findListener(rig, first.listenerId)?.name ?? first.listenerId;
  return say.andAlsoSilencesAt({
    start,
    source,
    listener,
    more: more.length > 0 ? say.andMore({ more: more.length }) : '',
  });
}
