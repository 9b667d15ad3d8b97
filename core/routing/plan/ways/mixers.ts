import { type Base, base, MICROPHONE_DB, room, SAME_SIDES, voices } from './base.ts';
import type { Brief } from './brief.ts';
import type { WayMaker } from './maker.ts';

/** A mixer that hears everything: consoles, voices, music, and the guest back from the computer. */
interface MixerPorts {
  readonly typeId: string;
  readonly strips: readonly string[];
  readonly wide: readonly string[];
  /** The outputs for the recorder, the speakers and ears. */
  readonly out?: string;
  readonly room?: string;
  readonly phones?: string;
  /** Sends by the ends of their names: for the room, for ears, and for the guest, who must not hear themselves. */
  readonly roomSend?: string;
  readonly earSend?: string;
  readonly guestMix?: string;
  /** Where the guest's audio comes back. */
  readonly guestStrip?: string;
  /** It is an audio device itself; and which setting makes its channel take the computer's playback. */
  readonly usb?: true;
  readonly usbReturn?: { readonly setting: string; readonly forGuestOnly: boolean };
}

/** The second pair of a mixer's USB: a mix of its own. */
const THIRD_PAIR = [
  { from: 'ch-3', to: 'left' },
  { from: 'ch-4', to: 'right' },
];

export const DIGITAL: MixerPorts = {
  typeId: 'mixer-usb-10',
  strips: ['strip-1', 'strip-2'],
  wide: ['strip-5-6', 'strip-7-8'],
  out: 'main-out',
  room: 'send-1-out',
  phones: 'send-3-out',
  roomSend: 'send-1',
  earSend: 'send-3',
  guestMix: 'send-2',
  guestStrip: 'strip-9-10',
  usb: true,
  usbReturn: { setting: 'strip-9-10-input', forGuestOnly: false },
};
export const SMALL: MixerPorts = {
  typeId: 'mixer-usb-send',
  strips: ['strip-1', 'strip-2'],
  wide: ['strip-3-4', 'strip-5-6'],
  out: 'main-out',
  room: 'send-out',
  phones: 'phones',
  roomSend: 'send',
  guestStrip: 'strip-5-6',
  usb: true,
  usbReturn: { setting: 'strip-5-6-input', forGuestOnly: true },
};
export const ANALOGUE: MixerPorts = {
  typeId: 'mixer-analogue',
  strips: ['strip-1', 'strip-2'],
  wide: ['strip-3-4', 'strip-5-6'],
  out: 'main-out',
  phones: 'phones',
};

type GameBy = 'extractor' | 'jack' | 'capture';

/** Everything over one mixer; its mix goes into the computer by USB. */
export function overMixer(
  make: WayMaker,
  brief: Brief,
  ports: MixerPorts,
  gameBy: GameBy,
  microphone: 'microphone-dynamic' | 'microphone-usb' = 'microphone-dynamic',
): void {
  const b = base(make, brief, gameBy === 'jack' ? 'screen-with-jack' : 'television');
  const mixer = make.add(ports.typeId, 'Mixer');
  const strips: { readonly id: string; readonly of: 'voice' | 'game' | 'music' }[] = [];
  voices(make, b.people, microphone).forEach((m, i) => {
    const wide = microphone === 'microphone-usb';
    const into = wide ? ports.wide[i] : ports.strips[i];
    if (into) {
      make.lead(m, mixer, { to: into });
      strips.push({ id: into, of: 'voice' });
      if (!wide) make.set(mixer, `${into}-gain`, MICROPHONE_DB);
    }
    if (wide) {
      // Its own USB feeds it, and its jack hands on the voice alone.
      make.lead(m, b.computer);
      make.set(m, 'direct', 0);
      make.set(m, 'volume', 0);
    }
  });
  const free = ports.wide.slice(microphone === 'microphone-usb' ? b.people.length : 0);
  if (brief.consoles > 0 && gameBy !== 'capture') {
    const into = free.shift();
    if (into) {
      gameInto(make, b, mixer, into, gameBy);
      strips.push({ id: into, of: 'game' });
    }
    make.set(b.program, 'in-1-mute', true);
  }
  const phoneInto = b.phone ? free.shift() : undefined;
  if (b.phone && phoneInto) {
    make.lead(b.phone, mixer, { to: phoneInto });
    strips.push({ id: phoneInto, of: 'music' });
  }
  const usb = intoComputer(make, b, mixer, ports);
  const mix = make.brings(b.computer, usb);
  if (mix) make.link(mix, `${b.program}.in-2`, 'software');
  if (b.call && mix) {
    const own = ports.guestMix;
    make.link(mix, `${b.call}.near-microphone`, 'software', 0, own ? THIRD_PAIR : undefined);
    const back = ports.usb ? make.takes(b.computer, usb) : null;
    if (back) make.link(`${b.call}.near-loudspeaker`, back, 'software', 0, SAME_SIDES);
    if (own) for (const { id } of strips) make.set(mixer, `${id}-${own}`, 0);
  }
  const back = ports.guestStrip ? [{ id: ports.guestStrip, of: 'guest' as const }] : [];
  for (const { id, of } of [...strips, ...back]) {
    if (ports.roomSend && of !== 'voice') make.set(mixer, `${id}-${ports.roomSend}`, -6);
    if (ports.earSend) make.set(mixer, `${id}-${ports.earSend}`, 0);
  }
  ends(make, brief, mixer, ports);
}

function gameInto(make: WayMaker, b: Base, mixer: string, into: string, by: GameBy): void {
  if (by === 'jack') {
    make.lead(b.screen, mixer, { from: 'jack', to: into });
    return;
  }
  make.lead(extractorOf(make, b), mixer, { from: 'line', to: into });
}

/** An extractor on the way to the screen. */
export function extractorOf(make: WayMaker, b: Base): string {
  const extractor = make.add('hdmi-extractor', 'HDMI audio extractor');
  // Between splitter and screen: the screen's lead is taken over.
  const there = make.rig().cables.find((c) => c.to.deviceId === b.screen);
  if (there) make.unplug(there.id);
  make.lead(b.splitter!, extractor, { from: 'out-1', to: 'in' });
  make.lead(extractor, b.screen, { from: 'out' });
  return extractor;
}

/** How a mix comes into the computer: by the mixer's own USB, or by an interface behind it. */
function intoComputer(make: WayMaker, b: Base, mixer: string, ports: MixerPorts): string {
  if (ports.usb) {
    make.lead(mixer, b.computer);
    if (b.call) make.lead(b.computer, mixer, { to: 'usb-return' });
    if (b.call && ports.guestMix)
      make.pair(
        mixer,
        'usb-send-2',
        b.computer,
        THIRD_PAIR.map((p) => ({ from: p.to, to: p.from })),
      );
    const { usbReturn } = ports;
    if (usbReturn && (b.call || !usbReturn.forGuestOnly)) make.set(mixer, usbReturn.setting, 'usb');
    return mixer;
  }
  const out = make.add('line-to-usb', 'Line to USB');
  make.lead(mixer, out, { from: 'tape-out' });
  make.lead(out, b.computer);
  if (b.call) {
    const back = make.add('usb-to-line', 'USB to line');
    make.lead(b.computer, back);
    make.lead(back, mixer);
    const heard = make.takes(b.computer, back);
    if (heard) make.link(`${b.call}.near-loudspeaker`, heard, 'software');
  }
  return out;
}

/** Ears, room and backup at a mixer. */
function ends(make: WayMaker, brief: Brief, mixer: string, ports: MixerPorts): void {
  const ears = make.add('headphones', 'Headphones');
  if (ports.phones) make.lead(mixer, ears, { from: ports.phones });
  if (brief.room) room(make, mixer, ports.room);
  if (brief.backup) {
    const recorder = make.add('recorder-stereo', 'Backup recorder');
    make.lead(mixer, recorder, { from: ports.out! });
  }
}
