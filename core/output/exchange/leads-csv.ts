import { csvParseRows } from 'd3-dsv';
import { listOf, quoted, SaidError, type Text } from '#core/base/said/index.ts';
import { csvOf } from '#core/base/text/index.ts';
import { PARTS } from '#core/model/plug/index.ts';
import { applyEdit, type Edit, findDevice, findPort, findTypes, type Rig } from '#core/model/rig/index.ts';
import { say } from './sayings.ts';

const COLUMNS = [
  'lead',
  'from device',
  'from port',
  'to device',
  'to port',
  'medium',
  'length m',
  'known',
  'parts',
  'channels',
] as const;
type Column = (typeof COLUMNS)[number];
const NEEDED: readonly Column[] = ['from device', 'from port', 'to device', 'to port', 'length m'];
type Cable = Rig['cables'][number];

/** Cables and radio links as a table, RFC 4180; with the ids of the rig, so that it can be imported again. */
export function leadsToCsv(rig: Rig): string {
  const rows = rig.cables
    .filter((c) => c.medium === 'lead' || c.medium === 'radio')
    .map((c) => [
      c.id,
      c.from.deviceId,
      c.from.portId,
      c.to.deviceId,
      c.to.portId,
      c.medium,
      String(c.lengthM),
      c.known,
      // What no one has looked at is left open; 'none' is a plug that goes straight in.
      c.parts ? c.parts.join(' + ') || NO_PARTS : '',
      (c.map ?? []).map((pair) => `${pair.from}=${pair.to}`).join(' '),
    ]);
  return csvOf([[...COLUMNS], ...rows]);
}

const NO_PARTS = 'none';

/** Result of one row: imported, unchanged, or why not. */
export interface RowReport {
  /** As a spreadsheet counts them: the heading is 1. */
  readonly line: number;
  readonly ok: boolean;
  readonly says: Text;
}
export interface LeadsRead {
  /** One step for all rows that are good; null where there is none. */
  readonly edit: Edit | null;
  readonly rows: readonly RowReport[];
}

/** More rows than any rig has leads. */
const MAX_ROWS = 2500;

/** Why a table is none of cables, in a sentence that says what to do. */
export class CsvError extends SaidError {
  constructor(what: Text) {
    super(what);
    this.name = 'CsvError';
  }
}

/**
 * Reads a table of cables against a rig: known cables take the length written, new ones are plugged. Rows that cannot be
 * are reported and left out; the rest is one edit.
 * @throws CsvError where it is no such table
 */
export function leadsFromCsv(rig: Rig, text: string): LeadsRead {
  const [head, ...body] = csvParseRows(text.replace(/^\uFEFF/, ''));
  const names = (head ?? []).map((h) => h.trim().toLowerCase());
  const missing = NEEDED.filter((c) => !names.includes(c));
  if (missing.length > 0) throw new CsvError(say.tableHasNoColumn({ names: listOf('and', missing.map(quoted)) }));
  const lines = body
    .map((cells, i) => ({ cells, line: i + 2 }))
    .filter(({ cells }) => cells.some((c) => c.trim() !== ''));
  if (lines.length > MAX_ROWS) throw new CsvError(say.tableHasRowRig({ rows: lines.length, most: MAX_ROWS }));
  const edits: Edit[] = [];
  let now = rig;
  const rows = lines.map(({ cells, line }): RowReport => {
    const cell = (column: Column) => cells[names.indexOf(column)]?.trim() ?? '';
    const read = readRow(now, cell);
    if ('why' in read) return { line, ok: false, says: read.why };
    if (read.edits.length === 0) return { line, ok: true, says: say.unchanged({ id: read.id }) };
    const done = applyEdit(now, { kind: 'batch', edits: read.edits });
    if (!done.ok) return { line, ok: false, says: done.refusal.reason };
    now = done.rig;
    edits.push(...read.edits);
    return { line, ok: true, says: read.says };
  });
  return { edit: edits.length > 0 ? { kind: 'batch', edits } : null, rows };
}

function readRow(
  rig: Rig,
  cell: (column: Column) => string,
): { why: Text } | { id: string; says: Text; edits: Edit[] } {
  const from = { deviceId: cell('from device'), portId: cell('from port') };
  const to = { deviceId: cell('to device'), portId: cell('to port') };
  for (const ref of [from, to]) {
    if (!findDevice(rig, ref.deviceId)) return { why: say.thereIsNoDevice({ device: ref.deviceId }) };
    if (!findPort(rig, findTypes(rig), ref)) return { why: say.hasNoPort({ device: ref.deviceId, port: ref.portId }) };
  }
  const lengthM = Number(cell('length m').replace(',', '.'));
  if (cell('length m') === '' || !Number.isFinite(lengthM) || lengthM < 0 || lengthM > 1000)
    return { why: say.isNotLengthIn({ length: cell('length m') }) };
  const medium = cell('medium') || 'lead';
  if (medium !== 'lead' && medium !== 'radio')
    return { why: say.isntValidConnectionType({ medium, first: 'lead', second: 'radio' }) };
  const more = readMore(cell);
  if ('why' in more) return more;
  const same = (c: Cable) =>
    c.from.deviceId === from.deviceId &&
    c.from.portId === from.portId &&
    c.to.deviceId === to.deviceId &&
    c.to.portId === to.portId;
  const known = rig.cables.find(same);
  if (known) {
    const next: Cable = { ...known, medium, lengthM, ...more };
    if (JSON.stringify({ ...known, ...next }) === JSON.stringify(known)) return { id: known.id, says: '', edits: [] };
    return {
      id: known.id,
      says:
        known.lengthM === lengthM
          ? say.partsOrChannels({ id: known.id })
          : say.cableLength({ id: known.id, from: known.lengthM, to: lengthM }),
      edits: [
        { kind: 'unplug', cableId: known.id },
        { kind: 'plug', cable: { ...next, known: 'confirmed' } },
      ],
    };
  }
  const wanted = cell('lead')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '');
  const id = freeId(rig, wanted || `${from.deviceId}-${to.deviceId}`.slice(0, 56));
  const cable: Cable = { id, from, to, medium, lengthM, known: 'confirmed', ...more };
  return { id, says: say.connected({ id }), edits: [{ kind: 'plug', cable }] };
}

/** Parts by the list of cables and adapters, channels as 'left=ch-3'; nothing where the cells are empty. */
function readMore(cell: (column: Column) => string): Pick<Cable, 'parts' | 'map'> | { why: Text } {
  const parts = cell('parts')
    .split('+')
    .map((p) => p.trim())
    .filter((p) => p !== '' && p !== NO_PARTS);
  const unknown = parts.find((p) => !PARTS.some((known) => known.id === p));
  if (unknown) return { why: say.isNotCableOr({ part: unknown }) };
  const pairs = cell('channels').split(/\s+/).filter(Boolean);
  const map = pairs.map((pair) => pair.split('=')).map(([from = '', to = '']) => ({ from, to }));
  if (map.some((m) => m.from === '' || m.to === ''))
    return { why: say.namesNoChannelsWrite({ channels: cell('channels') }) };
  return { ...(cell('parts') !== '' && { parts }), ...(map.length > 0 && { map }) };
}

function freeId(rig: Rig, wanted: string): string {
  const taken = new Set(rig.cables.map((c) => c.id));
  let id = wanted;
  for (let n = 2; taken.has(id); n++) id = `${wanted}-${n}`;
  return id;
}
