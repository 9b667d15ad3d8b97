import { findDevice, findSetting, findTypes, type Rig, settingAt, settingOf } from '#core/model/rig/index.ts';
import type { Finding } from '#core/rules/index.ts';
import { goalOf } from './ready.ts';
import type { NextStep } from './step.ts';

/**
 * Steps of a plan that are still to be done in a rig that has changed since: for as long as the new plan is worked out.
 * @param findings  of the rig as it is now
 */
export function stillOpen(steps: readonly NextStep[], rig: Rig, findings: readonly Finding[]): NextStep[] {
  const wrong = new Set(findings.filter((f) => !f.dismissed).map((f) => f.id));
  const open = new Set<string>();
  // What is wrong only once a step before it is done is still to come with that step.
  const isToCome = ({ after }: NextStep): boolean => after.some((id) => open.has(id));
  const isOpen = ({ act, findingIds }: NextStep): boolean => {
    switch (act.do) {
      case 'change':
        return findingIds.some((id) => wrong.has(id));
      case 'decide':
        return wrong.has(act.findingId);
      case 'task':
        return act.taskIds.some((id) => rig.tasks.some((t) => t.id === id));
      case 'answer':
        return isAssumed(rig, act.questionId);
      case 'measure':
        return rig.listeners.some((l) => l.id === act.listenerId);
      case 'describe':
        return act.what === 'devices' ? rig.devices.length === 0 : rig.plan.length === 0;
      case 'rehearse':
        return goalOf(rig) === 'rehearsed';
    }
  };
  return steps.filter((step) => {
    const isLeft = isOpen(step) || (MENDS.has(step.act.do) && isToCome(step));
    if (isLeft) open.add(step.id);
    return isLeft;
  });
}

const MENDS: ReadonlySet<NextStep['act']['do']> = new Set(['change', 'decide']);

function isAssumed(rig: Rig, questionId: string): boolean {
  const [kind, subject] = questionId.split(':') as [string, string];
  if (kind === 'lead') return rig.cables.some((c) => c.id === subject && c.known === 'assumed');
  const { deviceId, settingId } = settingAt(subject);
  const device = findDevice(rig, deviceId);
  const spec = findSetting(rig, findTypes(rig), deviceId, settingId);
  return device !== undefined && spec !== undefined && settingOf(device, spec).known === 'assumed';
}
