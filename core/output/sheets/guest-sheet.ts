import { listOf, type Text, textOf } from '#core/base/said/index.ts';
import { markdown } from '#core/base/text/index.ts';
import { findDevice, findTypes, type Rig, settingFor, settingOf } from '#core/model/rig/index.ts';
import { type FarSeat, farSeats } from '#core/routing/wiring/index.ts';
import { type Evaluation, evaluate } from '#core/signal/index.ts';
import { say } from './sayings.ts';

const nameOf = (list: readonly { readonly id: string; readonly name: string }[], id: string | null): string =>
  markdown(list.find((e) => e.id === id)?.name ?? '');
const list = (lines: readonly Text[]): string => lines.map((l) => `- ${textOf(l)}`).join('\n');

/**
 * What to send to someone at the far side of a call, as Markdown: what they will hear, how to set their end, how to
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
    `# ${textOf(say.guestTitle({ rig: markdown(rig.name), guest: name }))}`,
    '',
    `## ${textOf(say.whatYouHear())}`,
    list([
      hears.length > 0 ? say.youHear({ names: hears.join(', ') }) : say.toBeAgreed(),
      ...(delay ? [say.itReachesYouAbout({ low: Math.round(delay.low), high: Math.round(delay.high) })] : []),
    ]),
    '',
    `## ${textOf(say.yourEnd())}`,
    list([
      loudspeaker ? say.youListenOnSpeaker() : say.headsetOnBeforeYou(),
      say.chooseMicAndHeadphones(),
      processed ? say.leaveEchoCancellationAnd() : say.switchNoiseSuppressionAnd(),
      say.networkCableIsBetter(),
      say.joinMutedTenMinutes(),
    ]),
    '',
    `## ${textOf(say.recordYourself())}`,
    list([say.recordYourMicOn({ rate: rig.session.sampleRateHz / 1000 }), say.whenWeSaySo(), say.doNotStopOr()]),
    '',
    `## ${textOf(say.agreeTo())}`,
    list([
      say.yourVoiceGoesTo({
        where:
          public_.length > 0
            ? listOf(
                'and',
                public_.map((l) => markdown(l.name)),
              )
            : say.noOneElse(),
      }),
      say.itIsRecordedRecording(),
      say.keptUntilUsedFor(),
      say.youMaySayNo(),
      say.agreedNameDate(),
    ]),
    '',
  ].join('\n');
}
