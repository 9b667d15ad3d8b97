import { findDevice, findTypes, type Rig, settingFor, settingOf } from '#core/rig/index.ts';
import { type Evaluation, evaluate } from '#core/signal/index.ts';
import { markdown } from '#core/text/index.ts';
import { type FarSeat, farSeats } from '#core/wire/index.ts';

const nameOf = (list: readonly { readonly id: string; readonly name: string }[], id: string | null): string =>
  markdown(list.find((e) => e.id === id)?.name ?? '');
const list = (lines: readonly string[]): string => lines.map((l) => `- ${l}`).join('\n');

/**
 * What to send to somebody at the far side of a call, as Markdown: what they will hear, how to set their end, how to
 * record and return a take, and what they are asked to agree to. All of it follows from the rig.
 */
export function guestSheet(rig: Rig, seat: FarSeat, evaluation: Evaluation = evaluate(rig)): string {
  const { sourceId, listenerId, callId } = seat;
  const name = nameOf(rig.sources, sourceId);
  const seats = farSeats(rig);
  const hears = rig.plan
    .filter((c) => c.listenerId === listenerId && c.want === 'must')
    .map((c) => nameOf(rig.sources, c.sourceId));
  const public_ = rig.listeners.filter((l) => {
    const pair = evaluation.pairs.find((p) => p.sourceId === sourceId && p.listenerId === l.id);
    return pair && (pair.want === 'must' || pair.ways.length > 0) && !seats.some((s) => s.listenerId === l.id);
  });
  const call = findDevice(rig, callId)!;
  const spec = settingFor(findTypes(rig).get(call.typeId)!, 'voice-processing');
  const processed = spec ? settingOf(call, spec).value === 'on' : true;
  const delay = evaluation.pairs.find((p) => p.listenerId === listenerId && p.ways.length > 0)?.ways[0]?.delay.value;
  const loudspeaker = seat.gear?.ears === null;
  return [
    `# ${markdown(rig.name)}: for ${name}`,
    '',
    '## What you will hear',
    list([
      hears.length > 0 ? `${hears.join(', ')}. Not yourself: if you do, say so at once.` : 'To be agreed.',
      ...(delay
        ? [`It reaches you about ${Math.round(delay.low)} to ${Math.round(delay.high)} ms after it happens.`]
        : []),
    ]),
    '',
    '## Your end of the call',
    list([
      loudspeaker
        ? 'You listen on a speaker: keep it low and away from the mic. A headset is safer; bring one if you have it.'
        : 'Headset on before you join. Start with the volume at zero and bring it up slowly.',
      'Choose the mic and the headphones by name in the app; do not leave it at “default”. Close every other app that uses them.',
      processed
        ? 'Leave echo cancellation and noise suppression on.'
        : 'Switch noise suppression and automatic gain off, if your app lets you: we send music too, and they would chop it up. With a headset there is no echo to cancel.',
      'A network cable is better than Wi-Fi. Plug your laptop in to power.',
      'Join muted, ten minutes early; we do a test before we start.',
    ]),
    '',
    '## Record your own voice, and send it',
    list([
      `Record your mic on your side as well: ${rig.session.sampleRateHz / 1000} kHz, uncompressed (WAV). A phone recorder next to you is a good backup.`,
      'When we say so, clap three times, a second apart, close to the mic; again at the end. That is how we line up the recordings.',
      'Do not stop or pause in between. Afterward send the file as it is: not trimmed, not made louder, not converted.',
    ]),
    '',
    '## What we ask you to agree to',
    list([
      `Your voice goes to: ${public_.length > 0 ? public_.map((l) => markdown(l.name)).join(', ') : 'no one but the other side of the call'}.`,
      'It is recorded. The recording is kept until the date below, and used for the purpose below:',
      '  kept until: ______________________  used for: ______________________',
      'You may say no, now or later; then we leave you out.',
      'Agreed (name, date): ______________________',
    ]),
    '',
  ].join('\n');
}
