import { type Text, textOf } from '#core/base/said/index.ts';
import { type Rig, sourceIn } from '#core/model/rig/index.ts';
import { lineMap } from '#core/output/map/index.ts';
import { chainOf, type LeadSeen, numberedLeads } from '#core/rules/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import { fitted, PAPERS, type Paper, page, xml } from './page.ts';
import { say } from './sayings.ts';

const MARGIN_MM = 10;
const LABEL = { widthMm: 60, heightMm: 17, gapMm: 2 };
const LINE_MM = 4.2;
const MAP_TITLE_MM = 12;
/** Pixels of the map's layout that make a millimeter at most: small rigs are not blown up. */
const PX_A_MM = 3.4;

/** Labels for both ends of every cable, as many sheets as it takes: fold each in the middle round the cable. */
export function labelSheets(rig: Rig, paper: Paper): string[] {
  const { widthMm, heightMm } = PAPERS[paper];
  const columns = Math.floor((widthMm - 2 * MARGIN_MM + LABEL.gapMm) / (LABEL.widthMm + LABEL.gapMm));
  const rows = Math.floor((heightMm - 2 * MARGIN_MM + LABEL.gapMm) / (LABEL.heightMm + LABEL.gapMm));
  const labels = numberedLeads(rig).flatMap(({ number, lead }) =>
    [lead.from, lead.to].map((end, i) => ({
      number,
      here: `${end.device.name}, ${end.port.name}`,
      there:
        i === 0 ? say.toDevice({ device: lead.to.device.name }) : say.fromDevice({ device: lead.from.device.name }),
      lengthM: lead.cable.lengthM,
    })),
  );
  const sheets: string[] = [];
  for (let first = 0; first < labels.length; first += columns * rows) {
    const body = labels.slice(first, first + columns * rows).map((label, i) => {
      const x = MARGIN_MM + (i % columns) * (LABEL.widthMm + LABEL.gapMm);
      const y = MARGIN_MM + Math.floor(i / columns) * (LABEL.heightMm + LABEL.gapMm);
      return `<g transform="translate(${x} ${y})"><rect width="${LABEL.widthMm}" height="${LABEL.heightMm}" fill="none" stroke="#888" stroke-width="0.2" stroke-dasharray="1 1"/><text x="2" y="11" font-size="8" font-weight="640">${label.number}</text>${fitted(label.here, { xMm: 15, yMm: 5, widthMm: LABEL.widthMm - 16, heightMm: 5, sizeMm: 3.4, weight: 640 })}${fitted(label.there, { xMm: 15, yMm: 10, widthMm: LABEL.widthMm - 16, heightMm: 4.6, sizeMm: 3.2 })}<text x="15" y="15" font-size="2.8">${xml(say.meters({ lengthM: label.lengthM }))}</text></g>`;
    });
    sheets.push(page(widthMm, heightMm, body.join('')));
  }
  return sheets;
}

/** What plugs into what, lead by cable, on paper: number, from, to, what to take, length. */
export function wiringSheets(rig: Rig, paper: Paper): string[] {
  const { widthMm, heightMm } = PAPERS[paper];
  const perPage = Math.floor((heightMm - 2 * MARGIN_MM - 16) / (2 * LINE_MM));
  const leads = numberedLeads(rig);
  const sheets: string[] = [];
  for (let first = 0; first === 0 || first < leads.length; first += perPage) {
    const head = `${fitted(say.wiring({ rig: rig.name }), { xMm: MARGIN_MM, yMm: MARGIN_MM + 5, widthMm: widthMm - 2 * MARGIN_MM - 34, heightMm: 8, sizeMm: 5.5, weight: 640 })}<text x="${widthMm - MARGIN_MM}" y="${MARGIN_MM + 5}" font-size="3.2" text-anchor="end">${xml(say.sheetOf({ sheet: sheets.length + 1, sheets: Math.max(1, Math.ceil(leads.length / perPage)) }))}</text>`;
    const rows = leads.slice(first, first + perPage).map(({ number, lead }, i) => {
      const y = MARGIN_MM + 14 + i * 2 * LINE_MM;
      const at = (xMm: number, wide: number, text: Text, sizeMm = 3.4, down = 0) =>
        fitted(text, { xMm: MARGIN_MM + xMm, yMm: y + down, widthMm: wide, sizeMm });
      return `<g>${at(0, 8, String(number))}${at(9, 61, lead.from.device.name)}${at(9, 61, lead.from.port.name, 2.8, 3.5)}${at(72, 60, lead.to.device.name)}${at(72, 60, lead.to.port.name, 2.8, 3.5)}${at(134, widthMm - 2 * MARGIN_MM - 140, takes(lead), 2.8)}${at(134, widthMm - 2 * MARGIN_MM - 140, say.lengthAndKnown({ lengthM: lead.cable.lengthM, known: lead.cable.known }), 2.8, 3.5)}<rect x="${widthMm - MARGIN_MM - 4}" y="${y - 3}" width="4" height="4" fill="none" stroke="#444" stroke-width="0.3"/></g>`;
    });
    sheets.push(page(widthMm, heightMm, head + rows.join('')));
  }
  return sheets;
}

function takes(lead: LeadSeen): Text {
  const chain = chainOf(lead);
  if (chain === null) return say.noCableFits();
  if (chain === 'nothing-to-plug' || chain.parts.length === 0) return say.itsOwnCable();
  return chain.parts.map((p) => textOf(p.name)).join(' + ');
}

/** Hues in print: those of the light theme. */
const HUES = ['#134bb2', '#904b0e', '#4f1c85', '#3d735b', '#851b41', '#025166', '#745787', '#393e00'];

/** The line map on one sheet across, with the rig's name. */
export function mapSheet(rig: Rig, evaluation: Evaluation, paper: Paper): string {
  const { widthMm: heightMm, heightMm: widthMm } = PAPERS[paper];
  const { drawing, boxes, lines } = lineMap(rig, evaluation);
  const [roomW, roomH] = [widthMm - 2 * MARGIN_MM, heightMm - 2 * MARGIN_MM - MAP_TITLE_MM];
  const scale = Math.min(1 / PX_A_MM, roomW / Math.max(1, drawing.widthPx), roomH / Math.max(1, drawing.heightPx));
  const hueOf = (id: string) => HUES[(sourceIn(rig, id).hue - 1) % HUES.length];
  const drawn = lines.map((line) => {
    const points = drawing.wires
      .get(line.id)!
      .map((p) => p.join())
      .join(' ');
    const [first] = line.strands;
    const dash = line.silent ? ' stroke-dasharray="3 4"' : '';
    return `<polyline points="${points}" fill="none" stroke="${first ? hueOf(first.sourceId) : '#999'}" stroke-width="${first ? 2 : 1.2}"${dash}/>`;
  });
  const blocks = boxes.map((box) => {
    const at = drawing.boxes.get(box.deviceId)!;
    const names = box.lines.map(
      (t, i) => `<text x="8" y="${20 + i * 20}" font-size="17" font-weight="640">${xml(t)}</text>`,
    );
    return `<g transform="translate(${at.xPx} ${at.yPx})"><rect width="${at.widthPx}" height="${at.heightPx}" fill="#fff" stroke="#555"/>${names.join('')}</g>`;
  });
  const title = fitted(rig.name, {
    xMm: MARGIN_MM,
    yMm: MARGIN_MM + 5,
    widthMm: widthMm - 2 * MARGIN_MM,
    heightMm: MAP_TITLE_MM - 4,
    sizeMm: 5.5,
    weight: 640,
  });
  return page(
    widthMm,
    heightMm,
    `${title}<g transform="translate(${MARGIN_MM} ${MARGIN_MM + MAP_TITLE_MM}) scale(${scale.toFixed(4)})">${drawn.join('')}${blocks.join('')}</g>`,
  );
}
