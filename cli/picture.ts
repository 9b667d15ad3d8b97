import { linkName, needOf, PictureError, parseChroma, parseMode } from '#core/model/picture/index.ts';
import { cli as say } from '#words/index.ts';
import type { Command } from './command.ts';

/** What a picture mode asks of an HDMI link, and the smallest link that carries it. */
export const picture: Command = async ([mode], { values }) => {
  const bits = Number(values.bits);
  if (!Number.isInteger(bits)) throw new PictureError(say.unknownBitDepthUse({ bits: values.bits! }));
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
    text: say.mhzGbitSVideo({
      clock: pixelClockMhz.toFixed(2),
      source: timing.source,
      total: `${timing.totalWidth} x ${timing.totalHeight}`,
      rate: dataRateGbps.toFixed(2),
      link: minimumLink ? `${linkName(minimumLink)} (${minimumLink})` : say.noLinkCarriesIt(),
    }),
  };
};
