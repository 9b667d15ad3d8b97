import { Button } from '@chakra-ui/react';
import { findSetting, findTypes, type Rig } from '#core/rig/index.ts';
import { deviceName } from '#core/signal/index.ts';
import type { Left, Made, MadeSo, Wrong } from '#core/solve/index.ts';
import { count, StateMark } from '#web/parts/index.ts';
import { sayValue } from './say.ts';

interface Props {
  readonly rig: Rig;
  readonly made: MadeSo;
  readonly onToDo: () => void;
  readonly onSo: () => void;
  readonly onDrop: () => void;
}

/** What would make it so: each change with what it is for, what no setting brings, and the two verbs. */
export function Proposal({ rig, made, onToDo, onSo, onDrop }: Props) {
  const { changes, left, proved, evaluations } = made;
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
                <td className="quiet">{change.mends.map((w) => sayWrong(rig, w)).join('; ')}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {left.length > 0 && (
        <ul>
          {left.map((l) => (
            <li key={`${l.sourceId} ${l.listenerId}`} className="stop">
              <StateMark state="stop" /> {sayLeft(rig, l)}
            </li>
          ))}
        </ul>
      )}
      <p className="small quiet">
        {changes.length > 0 &&
          (proved
            ? 'Fewer settings would not do: all smaller sets were tried. '
            : 'Perhaps fewer would do: not all smaller sets were tried. ')}
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

function sayChange(rig: Rig, { deviceId, settingId, value }: Made): string {
  const spec = findSetting(rig, findTypes(rig), deviceId, settingId);
  return `${deviceName(rig, deviceId)}, ${spec?.name ?? settingId}: ${sayValue(spec, value)}`;
}

const names = (rig: Rig, { sourceId, listenerId }: Wrong) => ({
  source: rig.sources.find((s) => s.id === sourceId)?.name ?? sourceId,
  listener: rig.listeners.find((l) => l.id === listenerId)?.name ?? listenerId,
});

const WHY: Record<Wrong['word'], string> = {
  missing: 'comes to',
  unwanted: 'is kept from',
  twice: 'comes once to',
};
function sayWrong(rig: Rig, wrong: Wrong): string {
  const { source, listener } = names(rig, wrong);
  return `${source} ${WHY[wrong.word]} ${listener}`;
}

function sayLeft(rig: Rig, left: Left): string {
  const { source, listener } = names(rig, left);
  const { stop } = left;
  if (stop?.kind === 'no-way')
    return `${source} cannot come to ${listener} by any setting: it comes as far as ${stop.reaches.map((id) => deviceName(rig, id)).join(', ')}, and ${listener} is fed by ${stop.fedBy.map((id) => deviceName(rig, id)).join(', ') || 'nothing'}. A lead is missing between.`;
  return `No way was found for ${source} at ${listener} that breaks nothing else: two wishes clash there.`;
}
