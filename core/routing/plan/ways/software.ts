import { type Base, base, MICROPHONE_DB, room, SAME_SIDES, voices } from './base.ts';
import type { Brief } from './brief.ts';
import type { WayMaker } from './maker.ts';

/** What programs do where nothing is mixed outside: each input in the capture program, the guest by a call, ears from the computer. */
function inSoftware(
  make: WayMaker,
  { computer, program, call, captured, phone }: Base,
  ends: readonly string[],
  ears: string | null,
): void {
  ends.forEach((from, i) => {
    make.link(from, `${program}.in-${i + 2}`, 'software');
    if (call) make.link(from, `${call}.near-microphone`, 'software');
  });
  const system = make.add('sound-system', 'Computer audio');
  if (captured) {
    make.link(captured, `${system}.in-12`, 'software', 0, SAME_SIDES);
    make.set(system, 'listen-12', -10);
  }
  if (call) {
    make.link(`${call}.near-loudspeaker`, `${system}.play`, 'software');
    make.link(`${call}.near-loudspeaker`, `${program}.in-4`, 'software');
    if (captured) make.link(captured, `${call}.near-share`, 'software', 0, SAME_SIDES);
  }
  if (phone && make.lead(phone, computer, { to: 'line-in' })) {
    make.link(`${computer}.from-line-in`, `${program}.in-5`, 'software');
    make.link(`${computer}.from-line-in`, `${system}.in-34`, 'software');
    make.set(system, 'listen-34', -10);
    if (call) make.link(`${computer}.from-line-in`, `${call}.near-microphone`, 'software');
  }
  if (ears) make.link(`${system}.out-12`, ears, 'software');
}

/** What the ways in software differ in: the ends that bring the voices, and where one listens. */
type Voices = (make: WayMaker, base: Base) => { readonly ends: readonly string[]; readonly ears: string | null };

const known = (ends: readonly (string | null)[]): string[] => ends.filter((e) => e !== null);

const byMicrophones: Voices = (make, b) => {
  const ends = voices(make, b.people, 'microphone-usb').map((m) => {
    make.lead(m, b.computer);
    return make.brings(b.computer, m);
  });
  make.lead(b.computer, make.add('headphones', 'Headphones'), { from: 'line-out' });
  return { ends: known(ends), ears: `${b.computer}.to-line-out` };
};

const byHeadsets: Voices = (make, b) => {
  const headsets = b.people.map((person, i) => {
    const headset = make.add('headset-usb', i === 0 ? 'Headset' : 'Second headset');
    make.link(`${person}.voice`, `${headset}.boom`, 'air', 0.03);
    make.lead(headset, b.computer, { from: 'usb-out' });
    make.lead(b.computer, headset, { to: 'usb-in' });
    return headset;
  });
  const [ears = null] = known(headsets.map((h) => make.takes(b.computer, h)));
  return { ends: known(headsets.map((h) => make.brings(b.computer, h))), ears };
};

const byInterface: Voices = (make, b) => {
  const box = make.add('interface-2', 'Sound interface');
  voices(make, b.people, 'microphone-dynamic').forEach((m, i) => {
    make.lead(m, box, { to: `in-${i + 1}` });
    make.set(box, `gain-${i + 1}`, MICROPHONE_DB);
  });
  make.set(box, 'direct', -12);
  make.lead(box, b.computer, { from: 'usb' });
  make.lead(b.computer, box, { to: 'usb-in' });
  make.set(box, 'sides', 'both');
  make.lead(box, make.add('headphones', 'Headphones'), { from: 'phones' });
  return { ends: known([make.brings(b.computer, box)]), ears: make.takes(b.computer, box) };
};

const straight =
  (voicesBy: Voices) =>
  (make: WayMaker, brief: Brief): void => {
    const b = base(make, brief);
    const { ends, ears } = voicesBy(make, b);
    inSoftware(make, b, ends, ears);
    if (brief.room) room(make, b.computer, 'line-out');
  };
export const usbMicrophones = straight(byMicrophones);
export const usbHeadsets = straight(byHeadsets);
export const preampOnUsb = straight(byInterface);

export function openMicrophone(make: WayMaker, brief: Brief): void {
  const b = base(make, brief);
  const loudspeakers = make.add('loudspeakers-desk', 'Speakers');
  make.lead(b.screen, loudspeakers, { from: 'jack' });
  const microphone = make.add('microphone-usb', 'Open mic');
  for (const person of b.people) make.link(`${person}.voice`, `${microphone}.capsule`, 'air', 0.8);
  make.link(`${loudspeakers}.front`, `${microphone}.capsule`, 'air', 1.5);
  make.lead(microphone, b.computer);
  const own = make.brings(b.computer, microphone);
  if (b.captured) make.set(b.program, 'in-1-mute', true);
  inSoftware(make, { ...b, captured: null }, own ? [own] : [], null);
  if (brief.room) {
    const audience = make.add('audience', 'Audience');
    make.link(`${loudspeakers}.front`, `${audience}.ears`, 'air', 3);
  }
}

export function replug(make: WayMaker, brief: Brief): void {
  const b = base(make, brief);
  const [microphone] = voices(make, b.people.slice(0, 1), 'microphone-usb');
  make.lead(microphone!, b.computer);
  const own = make.brings(b.computer, microphone!);
  if (own) make.link(own, `${b.program}.in-2`, 'software');
  if (b.call && own) make.link(own, `${b.call}.near-microphone`, 'software');
  make.lead(b.screen, make.add('headphones', 'Headphones'), { from: 'jack' });
}
