import { placeOfTask } from '#core/live/next/index.ts';
import { isSettingTask, type Rig, type Task } from '#core/model/rig/index.ts';
import type { Question } from '#core/rules/index.ts';

/** One thing to look at, or to do. */
export interface DeskItem {
  readonly id: string;
  readonly deviceId: string;
  readonly portId: string | null;
  readonly settingId: string | null;
  readonly question: Question | null;
  readonly task: Task | null;
}

export interface DeskBox {
  readonly deviceId: string;
  readonly items: readonly DeskItem[];
}

/** Questions and tasks by device: one walk around the desk. The device whose answers affect most comes first. */
export function itemsByBox(rig: Rig, questions: readonly Question[]): DeskBox[] {
  const items: DeskItem[] = [
    ...questions.map((q) => ({ ...place(q), id: q.id, question: q, task: null })),
    ...rig.tasks.map((t) => ({
      ...placeOfTask(rig, t),
      settingId: isSettingTask(t) ? t.settingId : null,
      id: `task:${t.id}`,
      question: null,
      task: t,
    })),
  ];
  const boxes = new Map<string, DeskItem[]>();
  for (const item of items) boxes.set(item.deviceId, [...(boxes.get(item.deviceId) ?? []), item]);
  return [...boxes].map(([deviceId, own]) => ({ deviceId, items: own }));
}

const place = ({ deviceId, portId, settingId }: Question) => ({ deviceId, portId, settingId });
