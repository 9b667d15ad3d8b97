import { device, type Guide, listener, source } from '../guide.ts';

export const usbOrXlr: Guide = {
  id: 'usb-or-xlr',
  seeks: { microphone: device('microphone'), voice: source('voice'), stream: listener('mix', 'track') },
  steps: [
    { do: 'have', of: 'microphone' },
    { do: 'open', page: 'ways' },
    { do: 'reach', from: 'voice', to: 'stream' },
    { do: 'clear', rules: ['voice-noisy', 'gain-clips'] },
    { do: 'proof', from: 'voice', to: 'stream' },
  ],
};
