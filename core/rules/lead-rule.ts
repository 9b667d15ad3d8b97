import { type Draft, type Finding, findingOf, type Rule, ruleOf } from './finding.ts';
import { askLead, type LeadSeen, onLead } from './leads.ts';

/** What is said of a cable; where nothing else is said, it is asked whether the cable is there. */
export type LeadDraft = Omit<Draft, 'at'>;

/**
 * A rule that looks at one cable, with the devices at its ends, and at nothing else: what it says of a cable is kept until
 * one of the three changes. Of cables that share their plugs, the first is looked at; with `all`, each of them.
 */
export function leadRule(
  id: string,
  find: (lead: LeadSeen) => LeadDraft | null,
  { fixes, all = false }: { fixes?: Rule['fixes']; all?: boolean } = {},
): Rule {
  const kept = new WeakMap<LeadSeen, Finding | null>();
  const said = (lead: LeadSeen): Finding | null => {
    const before = kept.get(lead);
    if (before !== undefined) return before;
    const found = find(lead);
    const finding =
      found && findingOf('wire', id, { at: lead.cable.id, where: onLead(lead), asks: askLead(lead), ...found });
    kept.set(lead, finding);
    return finding;
  };
  return ruleOf(
    id,
    (context) => {
      const findings: Finding[] = [];
      for (const lead of all ? context.leads : context.plugged) {
        const finding = said(lead);
        if (finding) findings.push(finding);
      }
      return findings;
    },
    fixes,
  );
}
