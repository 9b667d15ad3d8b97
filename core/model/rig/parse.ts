import { z } from 'zod';
import { RigError } from './errors.ts';
import { findTypes } from './lookup.ts';
import { migrated } from './migrations.ts';
import { inOrder, sorted } from './order.ts';
import { checkReferences } from './references.ts';
import { say } from './sayings.ts';
import { type Device, RIG_VERSION, type Rig, RigDocument } from './schema.ts';
import { DeviceType } from './schema-type.ts';

/** Deeper than any rig goes, shallow enough for every recursive reader. */
const MAX_DEPTH = 32;
const FORBIDDEN = new Set(['__proto__', 'constructor', 'prototype']);

/** Walks level by level without recursion, so that a document nested ten thousand deep is refused and not crashed on. */
function refuseHostileShape(json: unknown): void {
  let level: object[] = typeof json === 'object' && json !== null ? [json] : [];
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > MAX_DEPTH) {
      throw new RigError('too-deep', '', say.thisFileIsNested({ most: MAX_DEPTH }));
    }
    const next: object[] = [];
    for (const value of level) {
      for (const key of Object.keys(value)) {
        if (FORBIDDEN.has(key)) {
          throw new RigError('forbidden-key', placeOf(json, value), say.nameIsNotAllowed({ key }));
        }
        const child: unknown = (value as Record<string, unknown>)[key];
        if (typeof child === 'object' && child !== null) next.push(child);
      }
    }
    level = next;
  }
}

/** The path to an object within a document. */
function placeOf(json: unknown, sought: object): string {
  const open: { value: unknown; path: string }[] = [{ value: json, path: '' }];
  for (let item = open.pop(); item; item = open.pop()) {
    const { value, path } = item;
    if (value === sought) return path;
    if (typeof value !== 'object' || value === null) continue;
    for (const [key, child] of Object.entries(value)) open.push({ value: child, path: path ? `${path}/${key}` : key });
  }
  return '';
}

const Versioned = z.looseObject({ schemaVersion: z.int().min(1) });

function firstIssue(error: z.ZodError): RigError {
  const issue = error.issues[0]!;
  const path = issue.path.join('/');
  return new RigError('shape', path, say.correctPlace({ problem: issue.message }));
}

/**
 * Unknown in, rig out: version checked, migrated forward, shape and references checked.
 * @throws RigError with the place and the reason
 */
export function parseRig(json: unknown): Rig {
  refuseHostileShape(json);
  const versioned = Versioned.safeParse(json);
  if (!versioned.success) {
    throw new RigError('not-a-rig', '', say.thisIsNotRig());
  }
  const document = versioned.data;
  if (document.schemaVersion > RIG_VERSION) {
    throw new RigError(
      'newer-version',
      'schemaVersion',
      say.thisRigFileIs({ version: document.schemaVersion, newest: RIG_VERSION }),
    );
  }
  const parsed = RigDocument.safeParse(migrated(document));
  if (!parsed.success) throw firstIssue(parsed.error);
  const { devices, moments } = parsed.data;
  const rig = sorted({
    ...parsed.data,
    devices: devices.map(settingsInOrder),
    moments: moments.map(inOrder),
  });
  const [trouble] = checkReferences(rig, findTypes(rig));
  if (trouble) throw trouble;
  return rig;
}

/** @throws RigError `not-json` for text that is no JSON, and all that `parseRig` throws */
export function parseRigText(text: string): Rig {
  let json: unknown;
  try {
    json = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch {
    throw new RigError('not-json', '', say.notValidJsonChoose());
  }
  return parseRig(json);
}

/** @throws RigError for a device type that cannot be read */
export function parseDeviceType(json: unknown): DeviceType {
  refuseHostileShape(json);
  const parsed = DeviceType.safeParse(json);
  if (!parsed.success) throw firstIssue(parsed.error);
  return parsed.data;
}

/** Settings by id, as edits keep them. */
const settingsInOrder = (device: Device): Device => ({
  ...device,
  settings: Object.fromEntries(Object.entries(device.settings).sort(([a], [b]) => (a < b ? -1 : 1))),
});

/** A rig with nothing on it. */
export const emptyRig = (name: string): Rig => ({
  schemaVersion: RIG_VERSION,
  name,
  notes: '',
  session: { frameRate: { num: 60, den: 1 }, sampleRateHz: 48_000, toleranceId: 'ebu-r37', fullScaleDbu: 18 },
  types: [],
  devices: [],
  cables: [],
  sources: [],
  listeners: [],
  plan: [],
  measurements: [],
  tasks: [],
  dismissed: [],
  moments: [],
});
