import { Button, Dialog, Portal } from '@chakra-ui/react';
import {
  type Cable,
  dropTask,
  findPort,
  findSetting,
  findTypes,
  isSettingTask,
  type LeadTask,
  type Rig,
  type SettingValue,
  type Task,
  tickTask,
} from '#core/rig/index.ts';
import { deviceName } from '#core/signal/index.ts';
import { formatDate } from '#web/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/store/index.ts';

interface Props {
  readonly rig: Rig;
  readonly open: boolean;
  readonly onClose: () => void;
}

/** What has been drawn and is still to be done at the desk, by box. A tick says that somebody did it. */
export function ToDo({ rig, open, onClose }: Props) {
  const dispatch = useAppDispatch();
  const boxes = [...new Set(rig.tasks.map((t) => boxOf(rig, t)))];
  const say = (task: Task) => sayTask(rig, task);
  return (
    <Dialog.Root lazyMount unmountOnExit open={open} onOpenChange={(e) => !e.open && onClose()}>
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content>
            <Dialog.Header>
              <Dialog.Title>To do at the desk</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              {boxes.length === 0 && (
                <p className="quiet">
                  Nothing is open. Propose a setting in Sync, choose ‘To do at the desk’, and it is listed here until it
                  is ticked.
                </p>
              )}
              {boxes.map((deviceId) => (
                <section key={deviceId}>
                  <h2>{deviceName(rig, deviceId)}</h2>
                  <table className="table">
                    <tbody>
                      {rig.tasks
                        .filter((t) => boxOf(rig, t) === deviceId)
                        .map((task) => (
                          <tr key={task.id}>
                            <td>
                              {say(task)}
                              <br />
                              <span className="quiet small">open since {formatDate(task.openedAt)}</span>
                            </td>
                            <td className="number">
                              <span className="row" style={{ justifyContent: 'flex-end' }}>
                                <Button onClick={() => dispatch(applyStep(tickTask(rig, task), `Done: ${say(task)}`))}>
                                  Done
                                </Button>
                                <Button
                                  onClick={() =>
                                    dispatch(applyStep(dropTask(rig, task), `Not to be done: ${say(task)}`))
                                  }
                                >
                                  Not after all
                                </Button>
                              </span>
                            </td>
                          </tr>
                        ))}
                    </tbody>
                  </table>
                </section>
              ))}
            </Dialog.Body>
            <Dialog.Footer>
              <Dialog.ActionTrigger asChild>
                <Button>Close</Button>
              </Dialog.ActionTrigger>
            </Dialog.Footer>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}

/** Where one stands to do it: at the box that is set, or at that which the lead goes into. */
function boxOf(rig: Rig, task: Task): string {
  if (isSettingTask(task)) return task.deviceId;
  return (rig.cables.find((c) => c.id === task.cableId) ?? task.before)?.to.deviceId ?? '';
}

/** 'Strip 1, delay: 0 to 128 ms'; 'Take out the lead from Console, HDMI' */
function sayTask(rig: Rig, task: Task): string {
  if (!isSettingTask(task)) return sayLeadTask(rig, task);
  const spec = findSetting(rig, findTypes(rig), task.deviceId, task.settingId);
  const now = rig.devices.find((d) => d.id === task.deviceId)?.settings[task.settingId]?.value ?? task.before.value;
  const unit = spec?.kind === 'delay' ? ` ${spec.unit}` : spec?.kind === 'gain' ? ' dB' : '';
  const word = (value: SettingValue) => (typeof value === 'boolean' ? (value ? 'on' : 'off') : String(value));
  return `${spec?.name ?? task.settingId}: ${word(task.before.value)} to ${word(now)}${unit}`;
}

function sayLeadTask(rig: Rig, task: LeadTask): string {
  const now = rig.cables.find((c) => c.id === task.cableId);
  const types = findTypes(rig);
  const end = (ref: Cable['from']) =>
    `${deviceName(rig, ref.deviceId)}, ${findPort(rig, types, ref)?.name ?? ref.portId}`;
  if (!now) return task.before ? `Take out the lead from ${end(task.before.from)}` : 'A lead that is gone';
  const way = `${end(now.from)}, to ${end(now.to)}`;
  return task.before ? `Change the lead from ${way}: ${now.lengthM} m` : `Put in a lead from ${way}, ${now.lengthM} m`;
}
