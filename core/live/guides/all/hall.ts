import { type Guide, listener, source } from '../guide.ts';

export const hall: Guide = {
  id: 'hall',
  seeks: { room: listener('room'), guest: source('far-voice'), far: listener('far-ears'), voice: source('voice') },
  steps: [
    { do: 'have', of: 'room' },
    { do: 'reach', from: 'guest', to: 'room' },
    { do: 'reach', from: 'voice', to: 'far' },
    { do: 'apart', from: 'guest', to: 'far' },
    { do: 'clear', rules: ['loop-howls', 'loop-echo'] },
    { do: 'open', page: 'tap' },
    { do: 'proof', from: 'guest', to: 'room' },
  ],
};
