export { type Edid, edidBytes, parseEdid, whyNot } from './edid.ts';

export { EdidError } from './edid-error.ts';
export {
  isEnough,
  LINKS,
  type Link,
  linkName,
  needOf,
  USB_VIDEO_GBPS,
  usbVideoGbps,
} from './link.ts';
export { type Chroma, type Coding, type Mode, modeName, PictureError, parseChroma, parseMode } from './mode.ts';
export { timingOf } from './timing.ts';
export { modeOfVic } from './vic.ts';
