import { base, MICROPHONE_DB, room, voices } from './base.ts';
import type { Brief } from './brief.ts';
import type { WayMaker } from './maker.ts';
import { extractorOf } from './mixers.ts';

export function matrix(make: WayMaker, brief: Brief): void {
  const b = base(make, brief);
  const mixer = make.add('mixer-matrix', 'Matrix');
  let input = 1;
  /** The computer, ears, the room, the backup: which outputs an input goes to. */
  const route = (of: 'voice' | 'game' | 'music' | 'guest', inputs: readonly number[], gainDb: number) => {
    const outs = { voice: [1, 2, 4], game: [1, 2, 3, 4], music: [1, 2, 3, 4], guest: [2, 3, 4] }[of];
    for (const n of inputs) {
      make.set(mixer, `in-${n}-gain`, gainDb);
      for (const out of outs) make.set(mixer, `in-${n}-to-${out}`, 0);
    }
  };
  for (const m of voices(make, b.people, 'microphone-dynamic')) {
    make.lead(m, mixer, { to: `in-${input}` });
    route('voice', [input++], MICROPHONE_DB);
  }
  /** Two sides into two inputs, by a cable that parts them. */
  const stereo = (of: 'game' | 'music' | 'guest', from: string) => {
    for (const side of ['left', 'right'] as const) {
      make.link(from, `${mixer}.in-${input}`, 'lead', 2, [{ from: side, to: 'mono' }]);
      route(of, [input++], 0);
    }
  };
  const toBoth = [
    { from: 'mono', to: 'left' },
    { from: 'mono', to: 'right' },
  ];
  if (brief.consoles > 0) {
    stereo('game', `${extractorOf(make, b)}.line`);
    make.set(b.program, 'in-1-mute', true);
  }
  if (b.phone) stereo('music', `${b.phone}.jack`);
  const box = make.add('interface-2', 'Audio interface');
  make.lead(mixer, box, { from: 'out-1', to: 'in-1' });
  make.set(box, 'gain-1', 0);
  make.lead(box, b.computer, { from: 'usb' });
  const mix = make.brings(b.computer, box);
  if (mix) make.link(mix, `${b.program}.in-2`, 'software');
  if (b.call && mix) {
    make.link(mix, `${b.call}.near-microphone`, 'software');
    make.link(`${b.call}.near-loudspeaker`, `${b.program}.in-4`, 'software');
    make.lead(b.computer, box, { to: 'usb-in' });
    const back = make.takes(b.computer, box);
    if (back) make.link(`${b.call}.near-loudspeaker`, back, 'software');
    stereo('guest', `${box}.line-out`);
  }
  const amplifier = make.add('headphone-splitter-box', 'Headphone amplifier');
  make.link(`${mixer}.out-2`, `${amplifier}.in`, 'lead', 2, toBoth);
  make.lead(amplifier, make.add('headphones', 'Headphones'));
  if (brief.room) room(make, `${mixer}.out-3`, null, toBoth);
  if (brief.backup)
    make.link(`${mixer}.out-4`, `${make.add('recorder-stereo', 'Backup recorder')}.line`, 'lead', 2, toBoth);
}
