import { device, type Guide, listener, source } from '../guide.ts';

export const radios: Guide = {
  id: 'radios',
  seeks: { radio: device('radio'), voice: source('radio-voice'), ears: listener('ears', 'room') },
  steps: [
    { do: 'have', of: 'radio' },
    { do: 'reach', from: 'voice', to: 'ears' },
    { do: 'clear', rules: ['exclusive-ends', 'exclusive-switched-off'] },
    { do: 'open', page: 'plan' },
    { do: 'open', page: 'run' },
    { do: 'proof', from: 'voice', to: 'ears' },
  ],
};
