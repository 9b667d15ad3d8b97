import { linkName, needOf, PictureError, parseChroma, parseMode } from '#core/picture/index.ts';
import type { Command } from './command.ts';

/** What a picture mode asks of an HDMI link, and the smallest link that carries it. */
export const picture: Command = async ([mode], { values }) => {
  const bits = Number(values.bits);
  if (!Number.isInteger(bits)) throw new PictureError(`Unknown bit depth '${values.bits}'. Use 8, 10, 12 or 16.`);
  const need = needOf(parseMode(mode!), { bits, chroma: parseChroma(values.chroma!) });
  const { timing, dataRateGbps, minimumLink } = need;
  const pixelClockMhz = timing.pixelClockHz / 1e6;
  return {
    json: {
      pixelClockMhz,
      dataRateGbps,
      minimumLink: minimumLink ?? 'none',
      totalWidth: timing.totalWidth,
      totalHeight: timing.totalHeight,
      source: timing.source,
    },
    text: `${pixelClockMhz.toFixed(2)} MHz (${timing.source}, ${timing.totalWidth} x ${timing.totalHeight}), ${dataRateGbps.toFixed(2)} Gbit/s of video: ${minimumLink ? `${linkName(minimumLink)} (${minimumLink})` : 'no link carries it without compression'}`,
  };
};
