import type { Said } from '#core/base/said/index.ts';
import { connectorOf, endOf, lastPlug } from '#core/model/plug/index.ts';
import { givesMicrophoneLevel, type LevelClass } from '#core/model/rig/index.ts';
import type { Rule, Severity } from './finding.ts';
import { leadRule } from './lead-rule.ts';
import { type LeadSeen, leadOn, sayLead } from './leads.ts';
import { say } from './sayings.ts';

interface Mismatch {
  readonly id: string;
  readonly from: readonly LevelClass[];
  readonly to: readonly LevelClass[];
  readonly severity: Severity;
  readonly says: Said;
  readonly why: Said;
}

const MICROPHONE = say.micLevel();
const LINE = say.lineLevel();
const SOURCE = say.typicalLevelsSockets();

/** What an output does to an input that is made for another level. */
const MISMATCHES: readonly Mismatch[] = [
  {
    id: 'level-speaker-output',
    from: ['speaker'],
    to: ['microphone', 'line', 'headphone', 'digital'],
    severity: 'stop',
    says: say.speakerOutputGoesInto(),
    why: say.speakerOutputGivesTens(),
  },
  {
    id: 'level-into-microphone',
    from: ['line', 'headphone'],
    to: ['microphone'],
    severity: 'fix',
    says: say.lineOrHeadphoneLevel(),
    why: say.lineAndMic({ LINE }),
  },
  {
    id: 'level-microphone-into-line',
    from: ['microphone'],
    to: ['line'],
    severity: 'fix',
    says: say.micIsPluggedInto(),
    why: say.micAndLine({ mic: MICROPHONE, line: LINE }),
  },
  {
    id: 'level-needs-amplifier',
    from: ['line', 'headphone', 'microphone'],
    to: ['speaker'],
    severity: 'fix',
    says: say.passiveSpeakerIsOn(),
    why: say.passiveSpeakerOhmsNeeds(),
  },
  {
    id: 'level-headphones-on-line',
    from: ['line'],
    to: ['headphone'],
    severity: 'watch',
    says: say.headphonesAreOnLine(),
    why: say.loadShouldBeAt(),
  },
  {
    id: 'level-digital-into-analogue',
    from: ['digital'],
    to: ['microphone', 'line', 'headphone', 'speaker'],
    severity: 'stop',
    says: say.digitalOutputGoesInto(),
    why: say.bitsAreNoSound(),
  },
  {
    id: 'level-analogue-into-digital',
    from: ['microphone', 'line', 'headphone', 'speaker'],
    to: ['digital'],
    severity: 'stop',
    says: say.analogOutputGoesInto(),
    why: say.bitsAreNoSound(),
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
  const [gives, takes] = [from, to].map(({ format }) => (format ? say.eightChannels() : say.twoChannelsSPdif()));
  return {
    severity: 'stop',
    says: say.formatsDiffer({ lead: sayLead(lead), gives: gives!, takes: takes! }),
    why: [
      {
        says: say.oneOpticalPlugServes(),
        source: say.iecForTwoChannels(),
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
    return {
      severity: m.severity,
      says: say.atCable({ lead: sayLead(lead), what: m.says }),
      why: [{ says: m.why, source: SOURCE }],
    };
  }),
);

export const levelRules: readonly Rule[] = [...mismatches, otherFormat];
