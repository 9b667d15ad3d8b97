import { check as checkRig, type Finding, type Fix, fixesOf } from '#core/rules/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { cli, textOf } from '#words/index.ts';
import type { Command } from './command.ts';
import { readRig } from './rig-file.ts';

/** What is wrong or doubtful in a rig, the worst first, with what it rests on and what would mend it. */
export const check: Command = async ([path]) => {
  const rig = await readRig(path!);
  const evaluation = evaluate(rig);
  const findings = checkRig(rig, evaluation).map((finding) => spoken(finding, fixesOf(rig, finding, evaluation)));
  return {
    json: { rig: rig.name, findings },
    text: findings.length === 0 ? cli.noIssues() : findings.map(sayFinding).join('\n'),
  };
};

/** A finding with its sentences, and with the codes that they come from. */
const spoken = ({ dismissed, ...finding }: Finding, fixes: readonly Fix[]) => ({
  ...finding,
  code: finding.says.code,
  params: structuredClone(finding.says.params),
  /** Its name in scripts since the first version. */
  aside: dismissed,
  says: textOf(finding.says),
  asks: finding.asks && textOf(finding.asks),
  why: finding.why.map(({ says, source }) => ({ says: textOf(says), source: textOf(source) })),
  fixes: fixes.map((fix) => ({ ...fix, label: textOf(fix.label) })),
});

function sayFinding({ severity, says, asks, fixes }: ReturnType<typeof spoken>): string {
  return [`${severity}: ${asks ?? says}`, ...fixes.map((fix) => cli.fix({ fix: fix.label }))].join('\n');
}
