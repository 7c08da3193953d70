export const PORT = 4820;
export const PASSWORD = 'tide at seven';
export const CHROMIUM_ARGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];
/** Where the demo takes letters in. */
export const MAIL_PORT = PORT + 3;
/** Where what the demo sends by mail is shown. */
export const INBOX_PORT = PORT + 5;
