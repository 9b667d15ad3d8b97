import { type Guide, listener, source } from '../guide.ts';

export const afterMonths: Guide = {
  id: 'after-months',
  seeks: { voice: source('voice', 'game', 'music', 'far-voice', 'other'), stream: listener('mix', 'track', 'ears') },
  steps: [
    { do: 'open', page: 'log' },
    { do: 'open', page: 'next' },
    { do: 'open', page: 'run' },
    { do: 'open', page: 'tap' },
    { do: 'proof', from: 'voice', to: 'stream' },
  ],
};
