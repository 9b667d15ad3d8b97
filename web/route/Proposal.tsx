import { Button } from '@chakra-ui/react';
import type { Bridge, Whole } from '#core/plan/index.ts';
import { endName, findTypes, type Rig } from '#core/rig/index.ts';
import { deviceName, sayBreak } from '#core/signal/index.ts';
import type { Clash, Left, Wrong } from '#core/solve/index.ts';
import { count, formatNumber, StateMark } from '#web/parts/index.ts';
import { costLines, sayChange, sayPoints } from './costs.ts';

interface Props {
  readonly rig: Rig;
  readonly made: Whole;
  readonly onToDo: () => void;
  readonly onSo: () => void;
  readonly onDrop: () => void;
  readonly onBridge: (bridge: Bridge, verb: 'to-do' | 'so') => void;
}

/** What would make it so: each change with what it is for, what no setting brings, and the two verbs. */
export function Proposal({ rig, made, onToDo, onSo, onDrop, onBridge }: Props) {
  const { changes, costs, second, left, proved, evaluations, bridges, clashes } = made;
  const lines = costLines(rig, costs);
  return (
    <section aria-label="Make it so" style={{ margin: '12px 0' }}>
      <h2 style={{ marginTop: 0 }}>
        {changes.length === 0 ? 'No setting to change' : `${count(changes.length, 'setting')} make it so`}
      </h2>
      {changes.length > 0 && (
        <table className="table tight">
          <tbody>
            {changes.map((change) => (
              <tr key={`${change.deviceId}.${change.settingId}`}>
                <td>{sayChange(rig, change)}</td>
                <td className="quiet">
                  {change.againstHowl ? 'so that nothing howls' : change.mends.map((w) => sayWrong(rig, w)).join('; ')}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {lines.length > 0 && (
        <details>
          <summary className="small">
            Cost: {sayPoints(costs)} points (1 for each setting changed),{' '}
            {proved ? 'the lowest of all' : 'the lowest found'}. Show {count(lines.length, 'reason')}.
          </summary>
          <ul className="small quiet">
            {lines.map(({ text, points }) => (
              <li key={text}>
                {text} ({formatNumber(points, 1)})
              </li>
            ))}
          </ul>
        </details>
      )}
      {second && (
        <details>
          <summary className="small">Show the second best: {sayPoints(second.costs)} points.</summary>
          <ul className="small quiet">
            {second.changes.map((change) => (
              <li key={`${change.deviceId}.${change.settingId}`}>{sayChange(rig, change)}</li>
            ))}
            {costLines(rig, second.costs).map(({ text, points }) => (
              <li key={text}>
                {text} ({formatNumber(points, 1)})
              </li>
            ))}
          </ul>
        </details>
      )}
      {left.length > 0 && (
        <ul>
          {left.map((l) => (
            <li key={`${l.sourceId} ${l.listenerId}`} style={{ marginTop: 6 }}>
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
                  <span key={b.cables.map((c) => c.id).join()} className="row" style={{ marginTop: 4 }}>
                    <span>{sayBridge(rig, b)}</span>
                    <Button onClick={() => onBridge(b, 'to-do')}>To do at the desk</Button>
                    <Button onClick={() => onBridge(b, 'so')}>It is so already</Button>
                  </span>
                ))}
            </li>
          ))}
        </ul>
      )}
      <p className="small quiet">
        {changes.length > 0 &&
          (proved
            ? 'No set of as few settings costs less: all were tried. '
            : 'Another set may cost less: not all were tried. ')}
        {count(evaluations, 'rig')} looked at. The table shows what would be heard. Levels down before you turn
        anything.
      </p>
      <p className="row" style={{ marginTop: 6 }}>
        {changes.length > 0 && (
          <>
            <Button variant="solid" onClick={onToDo}>
              To do at the desk <kbd>d</kbd>
            </Button>
            <Button onClick={onSo}>They are so already</Button>
          </>
        )}
        <Button onClick={onDrop}>
          Drop it <kbd>Esc</kbd>
        </Button>
      </p>
    </section>
  );
}

const names = (rig: Rig, { sourceId, listenerId }: Wrong) => ({
  source: rig.sources.find((s) => s.id === sourceId)?.name ?? sourceId,
  listener: rig.listeners.find((l) => l.id === listenerId)?.name ?? listenerId,
});

const WHY: Record<Wrong['word'], string> = {
  missing: 'comes to',
  unwanted: 'is kept from',
  twice: 'comes once to',
  'not-alone': 'is alone at',
  'too-loud': 'is quiet enough at',
  'too-quiet': 'is loud enough at',
};
function sayWrong(rig: Rig, wrong: Wrong): string {
  const { source, listener } = names(rig, wrong);
  return `${source} ${WHY[wrong.word]} ${listener}`;
}

type Pair = Pick<Wrong, 'sourceId' | 'listenerId'>;
const isSame = (a: Pair, b: Pair): boolean => a.sourceId === b.sourceId && a.listenerId === b.listenerId;

/** 'A lead from Phone, jack to Mixer, strips 3 and 4 (lead 3.5 mm), 4 to 9 €; then Mixer, fader: 0 dB' */
function sayBridge(rig: Rig, { box, cables, parts, changes, priceEur }: Bridge): string {
  const types = findTypes(rig);
  const end = (ref: (typeof cables)[number]['from']) =>
    ref.deviceId === box?.deviceId ? 'it' : `${deviceName(rig, ref.deviceId)}, ${endName(rig, types, ref)}`;
  const ways = cables.map((c) => `${end(c.from)} to ${end(c.to)}`).join('; ');
  const price = priceEur[1] > 0 ? `, ${priceEur[0].toFixed(0)} to ${priceEur[1].toFixed(0)} €` : '';
  const taken = parts.length > 0 ? ` (${parts.join(', ')})` : '';
  const then = changes.map((c) => sayChange(rig, c)).join('; ');
  return `${box ? `Put in ${box.name}: ` : 'Join '}${ways}${taken}${price}${then && `; then ${then}`}.`;
}

function sayLeft(rig: Rig, left: Left, clashes: readonly Clash[]): string {
  const { source, listener } = names(rig, left);
  const { stop } = left;
  if (stop?.kind === 'no-way' && stop.breaks.length > 0)
    return `${source} cannot come to ${listener} by any setting: ${stop.breaks.map((b) => sayBreak(rig, b)).join(', then ')}.`;
  if (stop?.kind === 'no-way')
    return `${source} cannot come to ${listener} by any setting: it comes as far as ${stop.reaches.map((id) => deviceName(rig, id)).join(', ')}, and ${listener} is fed by ${stop.fedBy.map((id) => deviceName(rig, id)).join(', ') || 'nothing'}. A lead is missing between.`;
  if (left.word === 'not-alone') return `${source} shares ${listener} with other sources: no setting keeps them apart.`;
  if (left.word === 'too-loud' || left.word === 'too-quiet')
    return `${source} is ${left.word === 'too-loud' ? 'too loud' : 'too quiet'} at ${listener}: no level on its way brings it there without moving others.`;
  const [clash] = clashes;
  if (!clash) return `No way was found for ${source} at ${listener} that breaks nothing else.`;
  const wish = names(rig, { ...left, ...clash.with });
  const want = rig.plan.find((c) => isSame(c, clash.with))?.want === 'must-not' ? 'is kept from' : 'comes to';
  return `${source} at ${listener} clashes with another wish: that ${wish.source} ${want} ${wish.listener}. Both go by the same way here. A way of its own for one of them frees them: a send, a second device, or a virtual cable.`;
}
