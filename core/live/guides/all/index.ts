import { afterMonths } from './after-months.ts';
import { balance } from './balance.ts';
import { blind } from './blind.ts';
import { classMusic } from './class-music.ts';
import { computerMicrophone } from './computer-microphone.ts';
import { consoleSound } from './console-sound.ts';
import { gains } from './gains.ts';
import { guestEcho } from './guest-echo.ts';
import { hall } from './hall.ts';
import { howl } from './howl.ts';
import { hum } from './hum.ts';
import { lapelMicrophone } from './lapel-microphone.ts';
import { leftAndRight } from './left-and-right.ts';
import { lipSync } from './lip-sync.ts';
import { openMicrophone } from './open-microphone.ts';
import { phoneMusic } from './phone-music.ts';
import { radios } from './radios.ts';
import { trackEach } from './track-each.ts';
import { twoChannels } from './two-channels.ts';
import { usbOrXlr } from './usb-or-xlr.ts';

/** Every guide, in the order in which they are listed. */
export const GUIDES = [
  consoleSound,
  lipSync,
  guestEcho,
  leftAndRight,
  trackEach,
  phoneMusic,
  classMusic,
  computerMicrophone,
  usbOrXlr,
  lapelMicrophone,
  hum,
  howl,
  openMicrophone,
  gains,
  balance,
  twoChannels,
  radios,
  hall,
  blind,
  afterMonths,
] as const;
