import type { Followed, Guide, GuidePage, Sought } from '#core/live/guides/index.ts';
import { findListener, findSource, type Rig } from '#core/model/rig/index.ts';
import { guideTitles, guides as say } from '#words/index.ts';

export type GuideId = keyof typeof guideTitles;
export const titleOf = ({ id }: Guide): string => guideTitles[id as GuideId].title();
export const introOf = ({ id }: Guide): string => guideTitles[id as GuideId].says();
/** The words that a guide is found by. */
export const wordsOf = ({ id }: Guide): string => {
  const { title, says, names } = guideTitles[id as GuideId];
  return `${title()} ${says()} ${names()}`;
};

const SOURCES = {
  voice: say.sourceVoice,
  'second-voice': say.sourceVoice,
  'far-voice': say.sourceFar,
  'radio-voice': say.sourceRadio,
  game: say.sourceGame,
  music: say.sourceMusic,
  other: say.sourceOther,
};
const LISTENERS = {
  mix: say.listenerMix,
  track: say.listenerTrack,
  ears: say.listenerEars,
  'far-ears': say.listenerFar,
  'radio-ears': say.listenerEars,
  room: say.listenerRoom,
};
const DEVICES = {
  camera: say.deviceCamera,
  capture: say.deviceCapture,
  computer: say.deviceComputer,
  call: say.deviceCall,
  recorder: say.deviceRecorder,
  microphone: say.deviceMicrophone,
  headphones: say.deviceHeadphones,
  loudspeakers: say.deviceLoudspeakers,
  radio: say.deviceRadio,
  mixer: say.deviceMixer,
};

/** What is sought, in plain words. */
export const saySought = (sought: Sought): string =>
  sought.what === 'source'
    ? SOURCES[sought.roles[0]!]()
    : sought.what === 'listener'
      ? LISTENERS[sought.roles[0]!]()
      : DEVICES[sought.is]();

const PAGES: Record<GuidePage, () => string> = {
  bench: say.pageBench,
  'bench/balance': say.pageBalance,
  'bench/blind': say.pageBlind,
  level: say.pageLevel,
  log: say.pageLog,
  next: say.pageNext,
  plan: say.pagePlan,
  route: say.pageRoute,
  run: say.pageRun,
  sync: say.pageSync,
  'sync/paths': say.pagePaths,
  tap: say.pageTap,
  trouble: say.pageTrouble,
  ways: say.pageWays,
};

const OF_A_PAIR = {
  reach: say.reach,
  apart: say.apart,
  once: say.once,
  time: say.time,
  alone: say.alone,
  proof: say.proof,
};

/** What has to be so, or to be done. */
export function sayStep(
  rig: Rig,
  guide: Guide,
  { step, pair, state }: Followed,
  nameOf: (name: string) => string | null,
): string {
  if (step.do === 'open') return PAGES[step.page]();
  if (step.do === 'clear') return say.clear();
  if (step.do === 'have') {
    const name = nameOf(step.of);
    return name === null ? say.haveNot({ what: saySought(guide.seeks[step.of]!) }) : say.have({ name });
  }
  if (state === 'missing' || !pair) return say.missingPair();
  const names = {
    source: findSource(rig, pair.sourceId)?.name ?? '',
    listener: findListener(rig, pair.listenerId)?.name ?? '',
  };
  return step.do === 'quick' ? say.quick({ ...names, withinMs: step.withinMs }) : OF_A_PAIR[step.do](names);
}
