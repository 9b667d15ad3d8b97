export { type Edid, edidBytes, parseEdid, whyNot } from './edid.ts';
export type { StatedMode } from './edid-blocks.ts';
export type { SoundFormat } from './edid-cta.ts';
export { EdidError, type EdidErrorCode } from './edid-error.ts';
export {
  isEnough,
  LINKS,
  type Link,
  linkName,
  type Need,
  needOf,
  USB_VIDEO_GBPS,
  type UsbVideo,
  usbVideoGbps,
} from './link.ts';
export { type Chroma, type Coding, type Mode, modeName, PictureError, parseChroma, parseMode } from './mode.ts';
export { type Timing, timingOf } from './timing.ts';
export { modeOfVic } from './vic.ts';
