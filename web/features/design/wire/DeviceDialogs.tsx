import { Button, chakra } from '@chakra-ui/react';
import { useMemo } from 'react';
import { deviceIn, findTypes, type Rig } from '#core/model/rig/index.ts';
import { addDevice, readTyped, replaceDevice, type Typed } from '#core/routing/wiring/index.ts';
import { Pick, rich, Sheet, Table } from '#web/shared/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/shared/store/index.ts';
import { wire as say } from '#words/index.ts';
import { useTypeItems } from './type-items.ts';

interface Props {
  readonly rig: Rig;
  readonly onClose: () => void;
}

interface AddProps extends Props {
  readonly onAdded: () => void;
  /** Other ways to say what is there. */
  readonly onOther: (way: 'many' | 'named') => void;
}

/** A device or a program from the library, put on the desk with the source that begins in it. */
export function AddDialog({ rig, onClose, onAdded, onOther }: AddProps) {
  const dispatch = useAppDispatch();
  const items = useTypeItems(rig);
  const own = useMemo(() => new Map(Object.entries(rig.words ?? {})), [rig.words]);
  return (
    <Sheet title={say.addDevice()} onClose={onClose}>
      <chakra.p className="quiet small" marginBottom="6px">
        {say.oneDeviceOrWhole()}
      </chakra.p>
      <Pick
        label={say.deviceOrChain()}
        instead={(text) => {
          if (!/[>;→\n]|\b(?:into|through|via)\b/i.test(text)) return null;
          // What is shown with each key needs no levels: they are set once it is taken.
          const typed = readTyped(rig, text, { levels: false, names: 'type', takes: true, own });
          return {
            shown: <TypedWay typed={typed} />,
            onEnter: () => {
              const { edit, boxes } = readTyped(rig, text, { names: 'type', takes: true, own });
              // What is not known is asked before anything is made.
              const isKnown = boxes.every((b) => b.type !== null);
              if (edit && isKnown && dispatch(applyStep(edit, say.addDeviceWith({ boxes: typed.boxes.length }))))
                onAdded();
            },
          };
        }}
        autoFocus
        items={items}
        none={say.noDeviceTypeMatches()}
        onPick={(id) => {
          const { edit, device } = addDevice(rig, findTypes(rig).get(id)!);
          if (dispatch(applyStep(edit, say.add({ device: device.name })))) onAdded();
        }}
      />
      <chakra.p className="row" marginTop="12px">
        <Button onClick={() => onOther('many')}>{say.severalWithCounts()}</Button>
        <Button onClick={() => onOther('named')}>{say.whatThisComputerLists()}</Button>
      </chakra.p>
    </Sheet>
  );
}

/** What a typed way was understood as, before it is added. */
function TypedWay({ typed }: { typed: Typed }) {
  const more = typed.boxes.filter((b) => !b.known).reduce((sum, b) => sum + b.count, 0);
  const none = typed.leads.filter((l) => l.offer === null);
  return (
    <div className="pick" role="status">
      <p className="small quiet">
        {say.typedAdds({ devices: more, cables: typed.leads.length - none.length })}
        {none.length > 0 && ` ${say.nothingConnectsPairs({ pairs: none.length })}`}{' '}
        {typed.edit && typed.boxes.every((b) => b.type !== null) && rich(say.enterAdds, {})}
      </p>
      <Table tight>
        <tbody>
          {typed.boxes.map((b) => (
            <tr key={b.word}>
              <td>{b.word}</td>
              <td className={b.type ? '' : 'stop'}>
                {b.count > 1 && `${b.count} × `}
                {b.type ? b.type.name : say.noDeviceTypeMatchesWord()}
                {b.known && <span className="quiet"> {say.alreadyInRig()}</span>}
                {b.others.length > 0 && (
                  <span className="small quiet"> {say.or({ join: b.others.map((t) => t.name).join('; ') })}</span>
                )}
                {b.left.length > 0 && (
                  <span className="small fix"> {say.notUnderstood({ join: b.left.join(', ') })}</span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </div>
  );
}

/** Another type in its place: leads stay where the new one has a socket for them. */
export function ReplaceDialog({ rig, deviceId, onClose }: Props & { deviceId: string }) {
  const dispatch = useAppDispatch();
  const device = deviceIn(rig, deviceId);
  const items = useTypeItems(rig);
  const family = findTypes(rig).get(device.typeId)!.family;
  const near = useMemo(() => {
    const types = findTypes(rig);
    const told = items
      .filter((i) => i.id !== device.typeId)
      .map((item) => {
        const replaced = replaceDevice(rig, deviceId, types.get(item.id)!);
        const lost = replaced?.lost.length ?? 0;
        const settings = replaced?.lostSettings.map((s) => s.name) ?? [];
        const leads = lost > 0 ? say.cableWouldBeUnplugged({ lead: lost }) : say.everyCableStays();
        const set =
          settings.length > 0
            ? say.settingsLost({
                join: settings.slice(0, 3).join(', '),
                more: settings.length > 3 ? say.andMore({ n3: settings.length - 3 }) : '',
              })
            : '';
        return { ...item, lost, note: `${leads}${set}` };
      });
    const isNear = (id: string) => Number(types.get(id)!.family === family);
    return told.sort((a, b) => isNear(b.id) - isNear(a.id) || a.lost - b.lost);
  }, [rig, deviceId, device.typeId, family, items]);
  return (
    <Sheet title={say.replaceWithAlso({ device: device.name })} onClose={onClose}>
      <Pick
        label={say.replaceWith()}
        autoFocus
        items={near}
        onPick={(id) => {
          const type = findTypes(rig).get(id)!;
          const replaced = replaceDevice(rig, deviceId, type);
          if (replaced && dispatch(applyStep(replaced.edit, say.replacedBy({ device: device.name, type: type.name }))))
            onClose();
        }}
      />
    </Sheet>
  );
}
