import type { Rig } from '#core/model/rig/index.ts';
import { leadsToCsv, rigToDot } from '#core/output/exchange/index.ts';
import { labelSheets, mapSheet, PAPERS, type Paper, settingsSheets, wiringSheets } from '#core/output/sheets/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { cli as say } from '#words/index.ts';
import type { Command } from './command.ts';
import { UsageError } from './edges.ts';
import { readRig } from './rig-file.ts';

const FORMS: Record<string, (rig: Rig, paper: Paper) => readonly string[]> = {
  leads: (rig) => [leadsToCsv(rig)],
  dot: (rig) => [rigToDot(rig)],
  json: (rig) => [JSON.stringify(rig, null, 2)],
  map: (rig, paper) => [mapSheet(rig, evaluate(rig), paper)],
  wiring: wiringSheets,
  labels: labelSheets,
  settings: settingsSheets,
};

/** A rig on paper or as a table: leads (CSV), dot, json, and the sheets map, wiring, labels and settings (SVG). */
export const exportRig: Command = async ([path, form], { values }) => {
  const make = FORMS[form!];
  if (!make) throw new UsageError(say.unknownFormatChooseOne({ form: form!, names: Object.keys(FORMS).join(', ') }));
  const paper = values.paper!;
  if (!(paper in PAPERS))
    throw new UsageError(say.unknownPaperSizeChoose({ paper, names: Object.keys(PAPERS).join(', ') }));
  const sheets = make(await readRig(path!), paper as Paper);
  return { json: { form, sheets }, text: sheets.join('\n').trimEnd() };
};
