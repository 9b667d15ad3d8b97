import { check as checkRig, type Finding, fixesOf } from '#core/check/index.ts';
import { evaluate } from '#core/signal/index.ts';
import type { Command } from './command.ts';
import { readRig } from './rig-file.ts';

/** What is wrong or doubtful in a rig, the worst first, with what it rests on and what would mend it. */
export const check: Command = async ([path]) => {
  const rig = await readRig(path!);
  const evaluation = evaluate(rig);
  const findings = checkRig(rig, evaluation).map((finding) => ({
    ...finding,
    fixes: fixesOf(rig, finding, evaluation),
  }));
  return {
    json: { rig: rig.name, findings },
    text: findings.length === 0 ? 'Nothing is found.' : findings.map(sayFinding).join('\n'),
  };
};

function sayFinding({ severity, says, asks, fixes }: Finding & { fixes: readonly { label: string }[] }): string {
  const lines = [`${severity}: ${asks ?? says}`, ...fixes.map((fix) => `  mended by: ${fix.label}`)];
  return lines.join('\n');
}
