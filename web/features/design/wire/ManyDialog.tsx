import { Button, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { findTypes, type Rig } from '#core/model/rig/index.ts';
import { addDevices } from '#core/routing/wiring/index.ts';
import { off, Pick, rich, Sheet, Table } from '#web/shared/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/shared/store/index.ts';
import { wire as say } from '#words/index.ts';
import { useTypeItems } from './type-items.ts';

const MOST = 24;

/** What is on the desk, ticked with counts: Enter takes one more of a kind, Ctrl and Enter puts all of it there. */
export function ManyDialog({ rig, onClose }: { rig: Rig; onClose: () => void }) {
  const dispatch = useAppDispatch();
  const items = useTypeItems(rig);
  const types = findTypes(rig);
  const [counts, setCounts] = useState<ReadonlyMap<string, number>>(new Map());
  const change = (typeId: string, by: number) =>
    setCounts((all) => {
      const next = new Map(all);
      const n = Math.min(MOST, (all.get(typeId) ?? 0) + by);
      if (n > 0) next.set(typeId, n);
      else next.delete(typeId);
      return next;
    });
  const total = [...counts.values()].reduce((a, b) => a + b, 0);
  const add = () => {
    if (total > 0 && dispatch(applyStep(addDevices(rig, counts), say.addDeviceWith({ boxes: total })))) onClose();
  };
  return (
    <Sheet title={say.whichDevicesDoYou()} onClose={onClose}>
      <Pick
        label={say.deviceType()}
        autoFocus
        clears
        items={items}
        none={say.noDeviceTypeMatches()}
        onPick={(id) => change(id, 1)}
        onSubmit={add}
      />
      {total > 0 && (
        <Table tight aria-label={say.selected()}>
          <tbody>
            {[...counts].map(([id, n]) => {
              const name = types.get(id)!.name;
              return (
                <tr key={id}>
                  <td>{name}</td>
                  <td className="number">
                    <chakra.span className="row" justifyContent="flex-end">
                      <Button aria-label={say.oneFewer({ name })} onClick={() => change(id, -1)}>
                        −
                      </Button>
                      <chakra.span minWidth="20px" textAlign="center">
                        {n}
                      </chakra.span>
                      <Button aria-label={say.oneMore({ name })} onClick={() => change(id, 1)}>
                        +
                      </Button>
                    </chakra.span>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </Table>
      )}
      <chakra.p marginTop="12px">
        <Button variant="solid" {...off(total === 0 ? say.chooseDevicesFirst() : null)} onClick={add}>
          {rich(say.addDeviceCtrlEnter, { boxes: total })}
        </Button>
      </chakra.p>
    </Sheet>
  );
}
