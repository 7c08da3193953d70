import { sendLetter } from '../standins/mail/send';
import { LETTER } from './letter';

/** `npm run letter -- ADDRESS`: the mail sender delivers the demo's newsletter to an address that Gather shows. */
const [to] = process.argv.slice(2);
const port = Number(process.env.AVRELLE_MAIL_PORT ?? 4812);
if (!to?.includes('@')) {
  console.error(
    'Give the address at which letters come in, as Gather shows it: npm run letter -- letters-…@intake.saltmere.test',
  );
  process.exit(1);
}
sendLetter(port, { ...LETTER, to, messageId: `<${Date.now()}@letters.saltmere.test>` }).then(
  () => console.log(`Delivered to ${to}.`),
  (error: Error) => {
    console.error(`Not delivered: ${error.message}. Is the demo running, and is this the newest address?`);
    process.exitCode = 1;
  },
);
