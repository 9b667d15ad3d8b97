import type { Rig } from '#core/model/rig/index.ts';
import { checkBy } from '#core/rules/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import type { Flag, Mark } from './faults/index.ts';

/** What the rules say of a rig, as what it does to whatever passes. */
interface Effect {
  /** The cables of the finding hand no sound on. */
  readonly silent?: true;
  /** They hand no picture on; `perhaps`: black, or fallen back to something smaller. */
  readonly black?: 'surely' | 'perhaps';
  readonly flag?: Flag;
  /** By which of what the finding points at it begins. */
  readonly by?: 'cable' | 'device';
}

const EFFECTS: Readonly<Record<string, Effect>> = {
  'power-phantom-missing': { silent: true },
  'power-plug-in-missing': { silent: true },
  'plug-three-in-four': { silent: true },
  'exclusive-switched-off': { silent: true },
  'picture-protected-capture': { silent: true, black: 'surely' },
  'picture-protection-old': { silent: true, black: 'surely' },
  'picture-sound-format': { silent: true },
  'picture-link-too-slow': { black: 'perhaps' },
  'picture-mode-too-large': { black: 'perhaps' },
  'picture-edid-lacks-mode': { black: 'perhaps' },
  'picture-usb-too-slow': { black: 'perhaps' },
  'picture-lead-too-long': { black: 'perhaps', flag: 'picture-odd', by: 'cable' },
  'usb-slow-socket': { flag: 'picture-odd', by: 'cable' },
  'usb-shared-pictures': { flag: 'picture-odd', by: 'cable' },
  'picture-fed-by-5-volts': { flag: 'picture-odd', by: 'cable' },
  'ground-hum-loop': { flag: 'hum', by: 'cable' },
  'ground-leakage': { flag: 'hum', by: 'cable' },
  'ground-two-strips': { flag: 'hum', by: 'cable' },
  'loop-howls': { flag: 'howl', by: 'device' },
  'call-processes-music': { flag: 'cut-up', by: 'device' },
  'clock-not-corrected': { flag: 'drop-outs', by: 'device' },
  'rate-differs': { flag: 'drop-outs', by: 'device' },
  'radio-range': { flag: 'drop-outs', by: 'cable' },
  'power-usb-hub-sum': { flag: 'drop-outs', by: 'device' },
  'power-supply-sum': { flag: 'drop-outs', by: 'device' },
};
const RULE_IDS = new Set(Object.keys(EFFECTS));

/** What is done to all that passes a cable or a device, by what the rules find. */
export interface Effects {
  readonly silentCables: ReadonlySet<string>;
  readonly blackCables: ReadonlySet<string>;
  readonly doubtfulCables: ReadonlySet<string>;
  readonly marks: readonly Mark[];
}

export function effectsOf(rig: Rig, evaluation: Evaluation): Effects {
  const silentCables = new Set<string>();
  const blackCables = new Set<string>();
  const doubtfulCables = new Set<string>();
  const marks: Mark[] = [];
  for (const { rule, where } of checkBy(rig, evaluation, RULE_IDS)) {
    const { silent, black, flag, by } = EFFECTS[rule]!;
    for (const id of where.cableIds) {
      if (silent) silentCables.add(id);
      if (black) (black === 'surely' ? blackCables : doubtfulCables).add(id);
      if (flag && by === 'cable') marks.push({ flag, cableId: id });
    }
    if (flag && by === 'device') for (const deviceId of where.deviceIds) marks.push({ flag, deviceId });
  }
  return { silentCables, blackCables, doubtfulCables, marks };
}
