export { type Chosen, handedOn, speakAsHandedOn, speakIn } from './chosen.ts';
export { core, messageOfSaid, textOf } from './core.ts';
export { alternatives } from './en/alternatives.ts';
export { blindTest } from './en/blind-test.ts';
export { charts } from './en/charts.ts';
export { cli } from './en/cli.ts';
export { common } from './en/common.ts';
export { firstDesk } from './en/first-desk.ts';
export { frame } from './en/frame.ts';
export { gear } from './en/gear.ts';
export { glossary, type TermId } from './en/glossary.ts';
export { guides, guideTitles } from './en/guides.ts';
export { help } from './en/help.ts';
export { join } from './en/join.ts';
export { level } from './en/level.ts';
export { listen } from './en/listen.ts';
export { log } from './en/log.ts';
export { measurements } from './en/measurements.ts';
export { mix } from './en/mix.ts';
export { moment } from './en/moment.ts';
export { next } from './en/next.ts';
export { parts } from './en/parts.ts';
export { phone } from './en/phone.ts';
export { plan } from './en/plan.ts';
export { players } from './en/players.ts';
export { process } from './en/process.ts';
export { rigs } from './en/rigs.ts';
export { roundTrip } from './en/round-trip.ts';
export { route } from './en/route.ts';
export { run } from './en/run.ts';
export { scan } from './en/scan.ts';
export { search } from './en/search.ts';
export { server } from './en/server.ts';
export { slate } from './en/slate.ts';
export { store } from './en/store.ts';
export { sync } from './en/sync.ts';
export { syncTest } from './en/sync-test.ts';
export { take } from './en/take.ts';
export { takes } from './en/takes.ts';
export { tapTest } from './en/tap-test.ts';
export { toDo } from './en/to-do.ts';
export { tour } from './en/tour.ts';
export { troubleshoot } from './en/troubleshoot.ts';
export { variants } from './en/variants.ts';
export { versions } from './en/versions.ts';
export { watch } from './en/watch.ts';
export { wire } from './en/wire.ts';
export { work } from './en/work.ts';
export { workers } from './en/workers.ts';
export {
  feetBeside,
  type Language,
  lengthMOf,
  type Message,
  message,
  type Params,
  type Spec,
  sayWith,
  speak,
  TAGS,
  tagsOf,
} from './message.ts';
