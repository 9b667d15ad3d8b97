export { check, checkBy, fixesOf, RULES } from './check.ts';
export type { Finding, Fix, Severity, Stage } from './finding.ts';
export { gearFaults, readGear } from './gear.ts';
export {
  chainOf,
  isBalanced,
  type LeadSeen,
  leadBetween,
  leadOn,
  leadsOf,
  leadWanted,
  numberedLeads,
  sayLead,
} from './leads.ts';
export { limitFor, limitOf } from './lengths.ts';
export { BATTERY_SPARE, batteryHours } from './power.ts';
export { type Answer, answerKey, askedBy, isAssumed, type Question, questionOf, questionsOf } from './questions.ts';
export { tally } from './tally.ts';
export { type TriedFix, tryFix, wireFindings } from './tried-fixes.ts';
