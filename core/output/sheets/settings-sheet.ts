import { type Text, textOf } from '#core/base/said/index.ts';
import {
  type Device,
  findTypes,
  hasUnity,
  type Rig,
  type SettingSpec,
  sayKnob,
  sayValue,
  settingOf,
  travelOf,
} from '#core/model/rig/index.ts';
import { fitted, PAPERS, type Paper, page, xml } from './page.ts';
import { say } from './sayings.ts';

const MARGIN_MM = 10;
const HEAD_MM = 10;
const BOX_HEAD_MM = 8;
const CELL = { widthMm: 31, heightMm: 24 };
const FACE_MM = 5.5;
/** A knob turns from seven o'clock to five: this many degrees to either side of straight up. */
const TURN_DEG = 150;

interface Cell {
  readonly spec: SettingSpec;
  readonly device: Device;
}

/**
 * How everything stands, on paper, box by device: knobs as faces with their hand at the hour, switches and mutes in words.
 * Settings at their defaults that no one has confirmed are left out.
 */
export function settingsSheets(rig: Rig, paper: Paper): string[] {
  const { widthMm, heightMm } = PAPERS[paper];
  const types = findTypes(rig);
  const columns = Math.floor((widthMm - 2 * MARGIN_MM) / CELL.widthMm);
  const boxes = rig.devices
    .map((device) => ({
      device,
      cells: types
        .get(device.typeId)!
        .settings.filter((spec) => device.settings[spec.id] !== undefined)
        .map((spec): Cell => ({ device, spec })),
    }))
    .filter((b) => b.cells.length > 0);
  const sheets: string[] = [];
  let body: string[] = [];
  let y = MARGIN_MM + HEAD_MM;
  const turn = () => {
    const head = `${fitted(say.currentSettings({ rig: rig.name }), { xMm: MARGIN_MM, yMm: MARGIN_MM + 5, widthMm: widthMm - 2 * MARGIN_MM - 34, heightMm: 8, sizeMm: 5, weight: 640 })}<text x="${widthMm - MARGIN_MM}" y="${MARGIN_MM + 5}" font-size="3.2" text-anchor="end">${xml(say.sheet({ sheet: sheets.length + 1 }))}</text>`;
    sheets.push(page(widthMm, heightMm, head + body.join('')));
    body = [];
    y = MARGIN_MM + HEAD_MM;
  };
  for (const { device, cells } of boxes) {
    for (let first = 0; first < cells.length; first += columns) {
      const needs = (first === 0 ? BOX_HEAD_MM : 0) + CELL.heightMm;
      if (y + needs > heightMm - MARGIN_MM) turn();
      if (first === 0) {
        body.push(
          fitted(device.name, {
            xMm: MARGIN_MM,
            yMm: y + 5,
            widthMm: widthMm - 2 * MARGIN_MM,
            sizeMm: 4.2,
            weight: 640,
          }),
        );
        y += BOX_HEAD_MM;
      }
      cells.slice(first, first + columns).forEach((cell, i) => {
        body.push(`<g transform="translate(${MARGIN_MM + i * CELL.widthMm} ${y})">${draw(cell)}</g>`);
      });
      y += CELL.heightMm;
    }
  }
  if (body.length > 0 || sheets.length === 0) turn();
  return sheets;
}

function draw({ device, spec }: Cell): string {
  const { value, known } = settingOf(device, spec);
  const middle = CELL.widthMm / 2 - 1;
  const centered = (yMm: number, text: Text, sizeMm: number, heightMm?: number) =>
    fitted(text, {
      xMm: middle,
      yMm,
      widthMm: CELL.widthMm - 2,
      sizeMm,
      anchor: 'middle',
      ...(heightMm && { heightMm }),
    });
  const name = centered(2.6, spec.name, 2.6, 4);
  const stands = `${textOf(sayValue(spec, value))}${known === 'assumed' ? ' ?' : ''}`;
  const says = (y: number, text: Text, size = 2.9) => centered(y, text, size);
  if (spec.kind === 'gain' && typeof value === 'number') {
    const hour = sayKnob(spec, value);
    return (
      name +
      face(middle, 10.5, travelOf(spec, value), hasUnity(spec) ? travelOf(spec, 0) : null) +
      says(19.6, stands) +
      says(22.6, hour, 2.5)
    );
  }
  if (spec.kind === 'mute' || spec.kind === 'switch') {
    const on = value === true || (spec.kind === 'switch' && value !== spec.default);
    const box = `<rect x="${middle - 7}" y="6.5" width="14" height="7" rx="1" fill="${on ? '#444' : 'none'}" stroke="#444" stroke-width="0.4"/>`;
    return name + box + says(19.6, stands);
  }
  return name + says(12, stands, 4);
}

/** A knob: its rim, its hand, and a mark where nothing is added. */
function face(x: number, y: number, travel: number, unity: number | null): string {
  const at = (share: number, r: number): string => {
    const angle = ((share * 2 - 1) * TURN_DEG * Math.PI) / 180;
    return `${(x + r * Math.sin(angle)).toFixed(2)} ${(y - r * Math.cos(angle)).toFixed(2)}`;
  };
  const mark =
    unity === null
      ? ''
      : `<path d="M${at(unity, FACE_MM)}L${at(unity, FACE_MM + 1.2)}" stroke="#444" stroke-width="0.5"/>`;
  return `<circle cx="${x}" cy="${y}" r="${FACE_MM}" fill="none" stroke="#444" stroke-width="0.4"/><path d="M${x} ${y}L${at(travel, FACE_MM - 0.6)}" stroke="#111" stroke-width="0.9"/>${mark}`;
}
