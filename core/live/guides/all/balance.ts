import { type Guide, listener, source } from '../guide.ts';

export const balance: Guide = {
  id: 'balance',
  seeks: { voice: source('voice'), game: source('game', 'music'), stream: listener('mix') },
  steps: [
    { do: 'have', of: 'game' },
    { do: 'reach', from: 'voice', to: 'stream' },
    { do: 'reach', from: 'game', to: 'stream' },
    { do: 'clear', rules: ['balance-masked', 'plan-too-loud', 'plan-too-quiet'] },
    { do: 'open', page: 'bench/balance' },
    { do: 'proof', from: 'game', to: 'stream' },
  ],
};
