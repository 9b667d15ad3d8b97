import { diagnose as diagnoseTake } from '#core/audio/measure/index.ts';
import { cli as say, textOf } from '#words/index.ts';
import { type Command, withWavs } from './command.ts';
import { loadFft } from './edges.ts';

/** What is wrong with a take, with what shows it. */
export const diagnose: Command = (files, options) =>
  withWavs(files, options, async ([file]) => {
    const { faults } = await diagnoseTake(await loadFft(), file!);
    const findings = faults.map(({ id, severity, evidence, atS }) => ({
      id,
      severity,
      evidence: textOf(evidence),
      atS,
    }));
    const text =
      findings.length === 0
        ? say.noFaultsFound()
        : findings.map((f) => `${f.severity.padEnd(5)}  ${f.id.padEnd(17)}  ${f.evidence}`).join('\n');
    return { json: { findings }, text };
  });
