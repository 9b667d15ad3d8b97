export { check, checkBy, fixesOf, RULES } from './check.ts';
export type { Finding, Fix, Reason, Rule, Severity, Stage } from './finding.ts';
export { type GearFault, type GearRead, gearFaults, readGear } from './gear.ts';
export {
  chainOf,
  familyOf,
  isBalanced,
  type LeadSeen,
  leadBetween,
  leadOn,
  leadsOf,
  leadWanted,
  sayLead,
} from './leads.ts';
export { limitFor, limitOf } from './lengths.ts';
export { batteryHours } from './power.ts';
export { type Answer, askedBy, isAssumed, optionsOf, type Question, questionsOf } from './questions.ts';
export { type Tally, tally } from './tally.ts';
