import { device, type Guide, listener, source } from '../guide.ts';

export const blind: Guide = {
  id: 'blind',
  seeks: { microphone: device('microphone'), voice: source('voice'), stream: listener('mix', 'track') },
  steps: [
    { do: 'have', of: 'microphone' },
    { do: 'reach', from: 'voice', to: 'stream' },
    { do: 'open', page: 'bench' },
    { do: 'open', page: 'bench/blind' },
    { do: 'proof', from: 'voice', to: 'stream' },
  ],
};
