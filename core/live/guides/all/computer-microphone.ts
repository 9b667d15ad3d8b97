import { device, type Guide, listener, source } from '../guide.ts';

export const computerMicrophone: Guide = {
  id: 'computer-microphone',
  seeks: { computer: device('computer'), voice: source('voice'), out: listener('far-ears', 'mix') },
  steps: [
    { do: 'have', of: 'computer' },
    { do: 'clear', rules: ['usb-nobody-listens', 'plug-none-fits', 'plug-needs-adapter', 'exclusive-ends'] },
    { do: 'reach', from: 'voice', to: 'out' },
    { do: 'once', from: 'voice', to: 'out' },
    { do: 'open', page: 'level' },
    { do: 'proof', from: 'voice', to: 'out' },
  ],
};
