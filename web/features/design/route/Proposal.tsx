import { Button, chakra } from '@chakra-ui/react';
import {
  endName,
  findListener,
  findSource,
  findTypes,
  type Rig,
  settingKey,
  type Verb,
} from '#core/model/rig/index.ts';
import type { Bridge, Whole } from '#core/routing/plan/index.ts';
import type { Clash, Left, Wrong } from '#core/routing/suggest/index.ts';
import { deviceName, sayBreak } from '#core/signal/index.ts';
import { Details, formatNumber, rich, StateMark, Table, TwoVerbs } from '#web/shared/parts/index.ts';
import { common, route as say } from '#words/index.ts';
import { costLines, sayChange, sayPoints } from './costs.ts';

interface Props {
  readonly rig: Rig;
  readonly made: Whole;
  readonly onVerb: (verb: Verb) => void;
  readonly onDrop: () => void;
  readonly onBridge: (bridge: Bridge, verb: Verb) => void;
}

/** What would make it so: each change with what it is for, what no setting brings, and the two verbs. */
export function Proposal({ rig, made, onVerb, onDrop, onBridge }: Props) {
  const { changes, costs, second, left, proved, evaluations, bridges, clashes } = made;
  const lines = costLines(rig, costs);
  return (
    <chakra.section aria-label={say.suggestedSettings()} margin="12px 0">
      <chakra.h2 marginTop="0">
        {changes.length === 0 ? say.noSettingToChange() : say.settingWouldDoIt({ setting: changes.length })}
      </chakra.h2>
      {changes.length > 0 && (
        <Table tight>
          <tbody>
            {changes.map((change) => (
              <tr key={settingKey(change.deviceId, change.settingId)}>
                <td>{sayChange(rig, change)}</td>
                <td className="quiet">
                  {change.againstHowl ? say.soThatNothingFeeds() : change.mends.map((w) => sayWrong(rig, w)).join('; ')}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      {lines.length > 0 && (
        <Details
          summary={say.costPointsPerSetting({
            costs: sayPoints(costs),
            found: proved ? say.lowestOfAll() : say.lowestFound(),
            reason: lines.length,
          })}
        >
          <ul className="small quiet">
            {lines.map(({ text, points }) => (
              <li key={text}>
                {text} ({formatNumber(points, 1)})
              </li>
            ))}
          </ul>
        </Details>
      )}
      {second && (
        <Details summary={say.showSecondBestPoints({ costs: sayPoints(second.costs) })}>
          <ul className="small quiet">
            {second.changes.map((change) => (
              <li key={settingKey(change.deviceId, change.settingId)}>{sayChange(rig, change)}</li>
            ))}
            {costLines(rig, second.costs).map(({ text, points }) => (
              <li key={text}>
                {text} ({formatNumber(points, 1)})
              </li>
            ))}
          </ul>
        </Details>
      )}
      {left.length > 0 && (
        <ul>
          {left.map((l) => (
            <chakra.li key={`${l.sourceId} ${l.listenerId}`} marginTop="6px">
              <span className="stop">
                <StateMark state="stop" />{' '}
                {sayLeft(
                  rig,
                  l,
                  clashes.filter((c) => isSame(c.wrong, l)),
                )}
              </span>
              {bridges
                .filter((b) => isSame(b.pair, l))
                .map((b) => (
                  <chakra.span key={b.cables.map((c) => c.id).join()} className="row" marginTop="4px">
                    <span>{sayBridge(rig, b)}</span>
                    <TwoVerbs of={sayBridge(rig, b)} onVerb={(verb) => onBridge(b, verb)} />
                  </chakra.span>
                ))}
            </chakra.li>
          ))}
        </ul>
      )}
      <p className="small quiet">
        {changes.length > 0 && `${proved ? say.noSmallerSet() : say.aSmallerSetMayExist()} `}
        {say.rigsTried({ count: evaluations })}
      </p>
      <chakra.p className="row" marginTop="6px">
        {changes.length > 0 && <TwoVerbs isKeyed onVerb={onVerb} />}
        <Button onClick={onDrop}>{rich(common.discardKeyed, {})}</Button>
      </chakra.p>
    </chakra.section>
  );
}

const names = (rig: Rig, { sourceId, listenerId }: Wrong) => ({
  source: findSource(rig, sourceId)?.name ?? sourceId,
  listener: findListener(rig, listenerId)?.name ?? listenerId,
});

const WHY: Record<Wrong['word'], string> = {
  missing: say.reaches(),
  unwanted: say.noLongerReaches(),
  twice: say.reachesOnlyOnce(),
  'not-alone': say.isAloneAt(),
  'too-loud': say.isQuietEnoughAt(),
  'too-quiet': say.isLoudEnoughAt(),
};
function sayWrong(rig: Rig, wrong: Wrong): string {
  const { source, listener } = names(rig, wrong);
  return say.whyChanged({ source, what: WHY[wrong.word], listener });
}

type Pair = Pick<Wrong, 'sourceId' | 'listenerId'>;
const isSame = (a: Pair, b: Pair): boolean => a.sourceId === b.sourceId && a.listenerId === b.listenerId;

/** 'A lead from Phone, jack to Mixer, strips 3 and 4 (lead 3.5 mm), 4 to 9 €; then Mixer, fader: 0 dB' */
function sayBridge(rig: Rig, { box, cables, parts, changes, priceEur }: Bridge): string {
  const types = findTypes(rig);
  const end = (ref: (typeof cables)[number]['from']) =>
    ref.deviceId === box?.deviceId
      ? say.theNewDevice()
      : `${deviceName(rig, ref.deviceId)}, ${endName(rig, types, ref)}`;
  const ways = cables.map((c) => say.to({ from: end(c.from), to: end(c.to) })).join('; ');
  const price = priceEur[1] > 0 ? say.priceRange({ n0: priceEur[0].toFixed(0), n02: priceEur[1].toFixed(0) }) : '';
  const taken = parts.length > 0 ? ` (${parts.join(', ')})` : '';
  const changed = changes.map((c) => sayChange(rig, c)).join('; ');
  return `${box ? say.addDevice({ box: box.name }) : say.connectOnly()}${ways}${taken}${price}${changed && say.thenConnect({ changed })}.`;
}

function sayLeft(rig: Rig, left: Left, clashes: readonly Clash[]): string {
  const { source, listener } = names(rig, left);
  const { stop } = left;
  if (stop?.kind === 'no-way' && stop.breaks.length > 0)
    return say.noSettingGetsTo({
      source,
      listener,
      breaks: stop.breaks.map((b) => sayBreak(rig, b)).join(say.thenNext()),
    });
  if (stop?.kind === 'no-way')
    return say.noSettingGetsToSignal({
      source,
      listener,
      join: stop.reaches.map((id) => deviceName(rig, id)).join(', '),
      nothing: stop.fedBy.map((id) => deviceName(rig, id)).join(', ') || 'nothing',
    });
  if (left.word === 'not-alone') return say.sharesWithOtherSources({ source, listener });
  if (left.word === 'too-loud' || left.word === 'too-quiet')
    return say.isAtAndNo({ source, quiet: left.word === 'too-loud' ? say.tooLoud() : say.tooQuiet(), listener });
  const [clash] = clashes;
  if (!clash) return say.foundNoWayTo({ source, listener });
  const wish = names(rig, { ...left, ...clash.with });
  const want = rig.plan.find((c) => isSame(c, clash.with))?.want === 'must-not' ? say.mustNotReach() : say.mustReach();
  return say.conflictsWithAnother({ source, listener, source2: wish.source, want, listener2: wish.listener });
}
