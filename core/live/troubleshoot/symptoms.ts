import type { Text } from '#core/base/said/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import type { Told } from './odds.ts';
import { keys } from './readings.ts';
import { say } from './sayings.ts';

/** A symptom in a user's words, and the observation it implies. */
export interface Symptom {
  readonly id: SymptomId;
  readonly says: Text;
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
  { id: 'no-sound', says: say.notHeard(), of: 'source' },
  { id: 'one-side', says: say.heardOnOneSide(), of: 'source' },
  { id: 'too-quiet', says: say.tooQuiet(), of: 'source' },
  { id: 'too-loud', says: say.tooLoud(), of: 'source' },
  { id: 'unwanted', says: say.heardButShouldntBe(), of: 'source' },
  { id: 'twice', says: say.doubledHollowOrEcho(), of: 'source' },
  { id: 'from-far', says: say.soundsDistantWrongMic(), of: 'source' },
  { id: 'late', says: say.audioBehindVideo(), of: 'source' },
  { id: 'early', says: say.audioAheadVideo(), of: 'source' },
  { id: 'no-picture', says: say.noVideo(), of: 'source' },
  { id: 'nothing-at-all', says: say.appDoesntSeeDevice(), of: 'all' },
  { id: 'hum', says: say.hum(), of: 'all' },
  { id: 'hiss', says: say.hiss(), of: 'all' },
  { id: 'distorted', says: say.distorted(), of: 'all' },
  { id: 'drop-outs', says: say.clicksOrDropouts(), of: 'all' },
  { id: 'cut-up', says: say.choppyOrWarbling(), of: 'all' },
  { id: 'howl', says: say.feedsBackHowls(), of: 'all' },
  { id: 'drifting', says: say.driftsAwayFromIts(), of: 'all' },
  { id: 'picture-odd', says: say.wrongColorsStuttersOr(), of: 'all' },
];

/** What one complains of: who, what, and of which source. */
export interface Complaint {
  readonly symptomId: SymptomId;
  readonly listenerId: string;
  /** Null where it is about all that the listener gets. */
  readonly sourceId: string | null;
}

const SOME_WAY = ['as always', 'weaker', 'louder', 'one side only', 'from farther off', 'it is there'];

/** A complaint as evidence. Nothing at all: about everything that is drawn to arrive there. */
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
