import { type Guide, listener, source } from '../guide.ts';

export const consoleSound: Guide = {
  id: 'console-sound',
  seeks: { game: source('game'), stream: listener('mix', 'track'), ears: listener('ears') },
  steps: [
    { do: 'have', of: 'game' },
    { do: 'reach', from: 'game', to: 'stream' },
    { do: 'reach', from: 'game', to: 'ears' },
    { do: 'once', from: 'game', to: 'stream' },
    { do: 'quick', from: 'game', to: 'ears', withinMs: 40 },
    { do: 'proof', from: 'game', to: 'ears' },
  ],
};
