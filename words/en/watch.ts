import { message } from '../message.ts';

/** Watch: an input metered all session, and its alarms. */
export const watch = {
  andMore: message('and {others, number} more', { others: 'number' }),
  troubleshoot: message('Troubleshoot <kbd>!</kbd>'),
  input: message('Input {n1}', { n1: 'text' }),
  inputCantBeOpened: message('The input can’t be opened. Another app may hold it.'),
  watch: message('Watch'),
  inputToWatch: message('Input to watch'),
  defaultInput: message('the default input'),
  carries: message('carries'),
  whatItCarries: message('What it carries'),
  watchInput: message('Watch an input'),
  askFirst: message(
    '{join}Your browser will ask for permission; nothing is recorded. You can also watch a virtual cable that carries the mix.',
    { join: 'text' },
  ),
  for: message(', for {forS}', { forS: 'text' }),
  byInput: message('on {name}', { name: 'name' }),
  noGoodSignalYet: message(' No good signal yet.'),
  lastOkAgo: message(' Last OK {wellAgo} ago.', { wellAgo: 'text' }),
  dbfsNow: message('{peakDbfs} dBFS now', { peakDbfs: 'text' }),
  lufsOverHalfMinute: message(', {usualLufs} LUFS over half a minute', { usualLufs: 'text' }),
  setAsNormal: message('Use this as normal'),
  stopWatching: message('Stop watching'),
  oneSideOnly: message('ONE SIDE ONLY'),
  levelChanged: message('LEVEL CHANGED'),
  alarmFor: message('{says}, for {forS} s', { says: 'text', forS: 'text' }),
  inputTitle: message('Input'),
  notMonitored: message('Not monitored: {destinations}.', { destinations: 'text' }),
  notHeardLongEnough: message('Not enough heard yet: let it run for a while.'),
};
