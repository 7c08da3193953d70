import type { Letter } from '../standins/mail/send';

/** A newsletter as such letters are built: tables, a list’s name, pictures that lie with its sender. */
export const LETTER: Omit<Letter, 'to'> = {
  from: 'The Tide Letter <tide@letters.saltmere.test>',
  subject: 'The week on the marsh: ice, eels and an argument',
  list: 'The Tide Letter <tide.letters.saltmere.test>',
  messageId: '<week-47@letters.saltmere.test>',
  html: `<html><head><style>.head{background:#dfe8e4;padding:12px}</style></head><body><table role="presentation" width="600"><tr><td class="head"><img src="http://studio.saltmere.test/pictures/wide.svg" alt="High water" width="560"></td></tr><tr><td>
<p>Dear walkers,</p>
<p>The first ice was on the pans on Thursday. It held a gull and did not hold a dog. By noon it had gone, and with it the last excuse for not reading the pegs on line C, which were read on Friday by four people in a very good temper.</p>
<p><b>Eels.</b> The trap at Sluice Nine took eleven this week, all going out, all on the one night when the gate stuck open. Abel Corrie says that this is not evidence of anything. Tilda Wick says that it is eleven pieces of evidence. Both are coming to supper.</p>
<p><b>The argument.</b> Whether the hinge is to be mended or left is now down to a show of hands on the fourth. Bring two, says the chair, as it will be cold.</p>
</td></tr><tr><td><img src="http://tracker.saltmere.test/seen.gif" width="1" height="1" alt=""><p>You have this letter because you asked for it on the quay.</p></td></tr></table></body></html>`,
};
