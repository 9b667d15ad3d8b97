import { connectorOf, endOf, lastPlug } from '#core/plug/index.ts';
import { givesMicrophoneLevel, type LevelClass } from '#core/rig/index.ts';
import type { Rule, Severity } from './finding.ts';
import { leadRule } from './lead-rule.ts';
import { type LeadSeen, leadOn, sayLead } from './leads.ts';

interface Mismatch {
  readonly id: string;
  readonly from: readonly LevelClass[];
  readonly to: readonly LevelClass[];
  readonly severity: Severity;
  readonly says: string;
  readonly why: string;
}

const MICROPHONE = 'a microphone gives −60 to −30 dBu when somebody talks';
const LINE = 'line is −10 dBV (−7.8 dBu) at home, +4 dBu in studios';
const SOURCE = 'typical levels of sockets';

/** What an output does to an input that is made for another level. */
const MISMATCHES: readonly Mismatch[] = [
  {
    id: 'level-speaker-output',
    from: ['speaker'],
    to: ['microphone', 'line', 'headphone', 'digital'],
    severity: 'stop',
    says: 'a loudspeaker output goes into an input: it can destroy it. Take a line output of the amplifier.',
    why: 'a loudspeaker output gives tens of volts at amperes',
  },
  {
    id: 'level-into-microphone',
    from: ['line', 'headphone'],
    to: ['microphone'],
    severity: 'fix',
    says: 'line or headphone level goes into a microphone input and overloads it. Take a line input, or put a pad of 30 to 50 dB in.',
    why: `${LINE}; a microphone socket takes −38 to −18 dBu`,
  },
  {
    id: 'level-microphone-into-line',
    from: ['microphone'],
    to: ['line'],
    severity: 'fix',
    says: 'a microphone goes into a line input: it will whisper in noise. Take a microphone input, or a preamplifier between.',
    why: `${MICROPHONE}; ${LINE}`,
  },
  {
    id: 'level-needs-amplifier',
    from: ['line', 'headphone', 'microphone'],
    to: ['speaker'],
    severity: 'fix',
    says: 'a passive loudspeaker stands on an output without an amplifier: hardly anything will be heard. Put an amplifier between.',
    why: 'a passive loudspeaker of 8 ohms needs volts at amperes; such outputs give milliamperes',
  },
  {
    id: 'level-headphones-on-line',
    from: ['line'],
    to: ['headphone'],
    severity: 'watch',
    says: 'headphones stand on a line output: they will be quiet and thin. Take the headphone output.',
    why: 'a load should be 10 times its source or more; headphones are 16 to 250 ohms',
  },
  {
    id: 'level-digital-into-analogue',
    from: ['digital'],
    to: ['microphone', 'line', 'headphone', 'speaker'],
    severity: 'stop',
    says: 'a digital output goes into an analogue input: there will be silence or loud noise. Turn the volume down before you unplug it; a converter goes between.',
    why: 'bits are no sound wave, whatever plug they come by',
  },
  {
    id: 'level-analogue-into-digital',
    from: ['microphone', 'line', 'headphone', 'speaker'],
    to: ['digital'],
    severity: 'stop',
    says: 'an analogue output goes into a digital input: there will be silence. A converter goes between.',
    why: 'bits are no sound wave, whatever plug they come by',
  },
];

/** A socket of two inputs, and the plug in it reaches the one for line level. */
const isLineAfterAll = (lead: LeadSeen): boolean => {
  const found = leadOn(lead);
  const plug = found && lastPlug(endOf(lead.from.port), found);
  return plug !== null && (connectorOf(lead.to.port.connector)?.line ?? []).includes(plug);
};

/** Two channels of bits into an input for eight, or the other way round, by a plug that fits both. */
const otherFormat: Rule = leadRule('level-digital-format', (lead) => {
  const [from, to] = [lead.from.port, lead.to.port];
  if (from.level !== 'digital' || to.level !== 'digital' || from.format === to.format) return null;
  const [gives, takes] = [from, to].map(({ format }) => (format ? 'eight channels' : 'two channels (S/PDIF)'));
  return {
    severity: 'stop',
    says: `${sayLead(lead)}: the output sends ${gives} and the input expects ${takes}: it does not lock, and there is silence or noise. Use a socket of the same format.`,
    why: [
      {
        says: 'one optical plug serves two formats; a receiver locks to one of them',
        source: 'IEC 60958 for two channels; eight channels by the usual optical format of preamps',
      },
    ],
  };
});

const mismatches: readonly Rule[] = MISMATCHES.map((m) =>
  leadRule(m.id, (lead) => {
    if (!m.from.includes(lead.from.port.level) || !m.to.includes(lead.to.port.level)) return null;
    if (m.id === 'level-into-microphone' && isLineAfterAll(lead)) return null;
    // A DI box takes an instrument, too.
    if (m.id === 'level-microphone-into-line' && givesMicrophoneLevel(lead.to.type, lead.to.port)) return null;
    return { severity: m.severity, says: `${sayLead(lead)}: ${m.says}`, why: [{ says: m.why, source: SOURCE }] };
  }),
);

export const levelRules: readonly Rule[] = [...mismatches, otherFormat];
