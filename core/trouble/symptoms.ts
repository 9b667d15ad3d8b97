import type { Rig } from '#core/rig/index.ts';
import type { Told } from './odds.ts';
import { keys } from './readings.ts';

/** A symptom as somebody puts it, and what it says of what can be told. */
export interface Symptom {
  readonly id: SymptomId;
  readonly says: string;
  /** Whether it is about one source, or about all that a listener gets. */
  readonly of: 'source' | 'all';
}

export const SYMPTOM_IDS = [
  'no-sound',
  'one-side',
  'too-quiet',
  'too-loud',
  'unwanted',
  'twice',
  'from-far',
  'late',
  'early',
  'no-picture',
  'nothing-at-all',
  'hum',
  'hiss',
  'distorted',
  'drop-outs',
  'cut-up',
  'howl',
  'drifting',
  'picture-odd',
] as const;
export type SymptomId = (typeof SYMPTOM_IDS)[number];

export const SYMPTOMS: readonly Symptom[] = [
  { id: 'no-sound', says: 'not heard', of: 'source' },
  { id: 'one-side', says: 'heard on one side only', of: 'source' },
  { id: 'too-quiet', says: 'too quiet', of: 'source' },
  { id: 'too-loud', says: 'too loud', of: 'source' },
  { id: 'unwanted', says: 'heard but shouldn’t be (e.g. your own voice)', of: 'source' },
  { id: 'twice', says: 'doubled: hollow, or an echo', of: 'source' },
  { id: 'from-far', says: 'sounds distant (wrong mic?)', of: 'source' },
  { id: 'late', says: 'audio behind the video', of: 'source' },
  { id: 'early', says: 'audio ahead of the video', of: 'source' },
  { id: 'no-picture', says: 'no video', of: 'source' },
  { id: 'nothing-at-all', says: 'app doesn’t see the device at all', of: 'all' },
  { id: 'hum', says: 'hum', of: 'all' },
  { id: 'hiss', says: 'hiss', of: 'all' },
  { id: 'distorted', says: 'distorted', of: 'all' },
  { id: 'drop-outs', says: 'clicks or dropouts', of: 'all' },
  { id: 'cut-up', says: 'choppy or warbling', of: 'all' },
  { id: 'howl', says: 'feeds back (howls)', of: 'all' },
  { id: 'drifting', says: 'drifts away from its video', of: 'all' },
  { id: 'picture-odd', says: 'wrong colors, stutters or sparkles', of: 'all' },
];

/** What one complains of: who, what, and of which source. */
export interface Complaint {
  readonly symptomId: SymptomId;
  readonly listenerId: string;
  /** Null where it is about all that the listener gets. */
  readonly sourceId: string | null;
}

const SOME_WAY = ['as always', 'weaker', 'louder', 'one side only', 'from farther off', 'it is there'];

/** A complaint as what was told. Nothing at all: of everything that is drawn to come there. */
export const toldBy = (rig: Rig, complaint: Complaint): Told[] =>
  answersTo(rig, complaint).map((told) => ({ ...told, complained: true }));

function answersTo(rig: Rig, { symptomId, listenerId, sourceId }: Complaint): Told[] {
  const hear = (answers: readonly string[]): Told[] =>
    sourceId === null ? [] : [{ key: keys.hear(listenerId, sourceId), answers }];
  switch (symptomId) {
    case 'no-sound':
      return hear(['nothing']);
    case 'one-side':
      return hear(['one side only']);
    case 'too-quiet':
      return hear(['weaker']);
    case 'too-loud':
      return hear(['louder']);
    case 'unwanted':
      return hear(SOME_WAY);
    case 'from-far':
      return hear(['from farther off']);
    case 'twice':
      return sourceId === null ? [] : [{ key: keys.twice(listenerId, sourceId), answers: ['twice'] }];
    case 'late':
    case 'early':
      return sourceId === null ? [] : [{ key: keys.time(listenerId, sourceId), answers: [symptomId] }];
    case 'no-picture':
      return sourceId === null ? [] : [{ key: keys.picture(listenerId, sourceId), answers: ['nothing'] }];
    case 'nothing-at-all':
      return rig.sources.map((s) => ({ key: keys.hear(listenerId, s.id), answers: ['nothing'] }));
    default:
      return [{ key: keys.flag(listenerId, symptomId), answers: ['yes'] }];
  }
}
