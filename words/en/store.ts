import { message } from '../message.ts';

/** What saving and sending say. */
export const store = {
  serverIsntRespondingYour: message('The server isn’t responding. Your changes are kept here and sent when it’s back.'),
  ifMellowTapWas: message('{message} If Mellow Tap was updated since this page was opened, reload it.', {
    message: 'text',
  }),
  serverSentUnreadableReply: message('The server sent an unreadable reply. Reload the page.'),
  archiveWasNotImported: message('The archive was not imported. Choose it again.'),
  undone: message('Undone: {s}', { s: 'name' }),
  serverRefusedThisFile: message('The server refused this file. Choose it again.'),
  answeredOnPhone: message('On a phone: {question} {answer}', { question: 'text', answer: 'text' }),
  doneOnPhone: message('Done, on the phone'),
};
