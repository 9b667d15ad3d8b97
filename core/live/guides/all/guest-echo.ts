import { type Guide, listener, source } from '../guide.ts';

export const guestEcho: Guide = {
  id: 'guest-echo',
  seeks: { guest: source('far-voice'), ears: listener('far-ears'), voice: source('voice') },
  steps: [
    { do: 'have', of: 'guest' },
    { do: 'reach', from: 'voice', to: 'ears' },
    { do: 'apart', from: 'guest', to: 'ears' },
    { do: 'open', page: 'tap' },
    { do: 'proof', from: 'voice', to: 'ears' },
  ],
};
