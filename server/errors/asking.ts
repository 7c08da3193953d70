import type { Entry } from './entry';

/** Of requests, accounts and writing. */
export const ASKING = {
  // The request itself
  invalid: { status: 400, title: 'That cannot be used as it is', detail: '{message}' },
  not_found: {
    status: 404,
    title: 'Nothing here',
    detail: 'There is no such {what}, or it is not shared with you. Check the address, or ask whoever gave it to you.',
  },
  foreign_origin: {
    status: 403,
    title: 'Not from this site',
    detail: 'A change was sent from "{origin}", which is not this site. Open Avrelle itself and try there.',
  },
  too_fast: {
    status: 429,
    title: 'Too many tries',
    detail: 'There were too many tries in a short time. Wait {wait} and try again.',
  },
  too_many_streams: {
    status: 429,
    title: 'Too many windows are listening',
    detail:
      'At most {limit} browsers can follow what happens under one account at once. Close Avrelle where you do not need it, and reload this page.',
  },
  busy: {
    status: 503,
    title: 'The server is busy',
    detail:
      'Something large is being written just now. What you wrote is kept on this page and sent again in a moment.',
  },
  broken: {
    status: 500,
    title: 'Something broke on our side',
    detail:
      'The server could not finish this; it has been logged under "{reference}". Nothing was half-saved. Try again, and tell your administrator that name if it stays.',
  },
  query: { status: 400, title: 'That search cannot be read', detail: '{message}' },
  // Accounts
  signed_out: {
    status: 401,
    title: 'Please sign in',
    detail:
      'You are not signed in, or your session has ended. Sign in and try again; what you wrote is still on this page.',
  },
  wrong_password: {
    status: 401,
    title: 'That does not match',
    detail:
      'This e-mail address and password do not belong together. Check both; capital letters count in the password.',
  },
  common_password: {
    status: 400,
    title: 'That password is tried first',
    detail:
      'This password, or one like it, is on the lists that are tried first. Take three or four words that do not belong together.',
  },
  suspended: {
    status: 403,
    title: 'This account is suspended',
    detail:
      'Your account was suspended by an administrator of this installation. Nothing of yours is lost. Ask them to open it again.',
  },
  administrators_only: {
    status: 403,
    title: 'Only an administrator can do this',
    detail: 'This looks after the accounts of this installation. Ask its administrator.',
  },
  own_account: {
    status: 409,
    title: 'That is your own account',
    detail:
      'You cannot {action} your own account here. Ask another administrator, or change your password under “Your account”.',
  },
  bad_token: {
    status: 401,
    title: 'That access key is not known',
    detail:
      'The access key that came with this request is not known, has ended or was taken back. Make a new one under “Your account”.',
  },
  token_scope: {
    status: 403,
    title: 'This access key may only read',
    detail:
      'The access key lets a program read, and this would change something. Make a key that may write under “Your account”.',
  },
  browser_only: {
    status: 403,
    title: 'Sign in to do this',
    detail: 'An access key is not enough for this. Sign in to Avrelle in a browser and do it there.',
  },
  email_taken: {
    status: 409,
    title: 'There is an account already',
    detail: 'An account with the address {email} exists. Sign in with it instead.',
  },
  sign_up_closed: {
    status: 403,
    title: 'Accounts are made by an administrator',
    detail: 'This installation does not let people make their own account. Ask its administrator for one.',
  },
  // Joining a class
  wrong_link: {
    status: 404,
    title: 'This link leads to no class',
    detail:
      'This link is not known, or was closed. Check whether it was copied whole, or ask your teacher for another.',
  },
  link_over: {
    status: 410,
    title: 'This link is over',
    detail: 'The link to join “{className}” {why}. Ask your teacher for another.',
  },
  no_people_listed: {
    status: 400,
    title: 'Nobody is listed there',
    detail:
      'No e-mail addresses were found in this file. A list has a line for each person, with a name and an address; ' +
      'a OneRoster archive holds classes.csv, users.csv and enrollments.csv.',
  },
  too_many_people: {
    status: 413,
    title: 'That list is too long',
    detail: 'This list has more than {limit} lines, or people for one class. Take a part of it.',
  },
  not_in_group: {
    status: 403,
    title: 'Not a group of yours',
    detail: 'This is for a group that you are not in, or that was dissolved. Choose again for whom it is.',
  },
  class_archived: {
    status: 409,
    title: 'This class is archived',
    detail:
      '“{className}” is archived: it can be looked at, and nothing new is written for it. A teacher can open it again.',
  },
  // Readings that are set
  comments_closed: {
    status: 403,
    title: 'Nothing is written here now',
    detail:
      'The teachers of “{className}” let nobody write for the class on this reading now. Write for yourself alone; later it can be shared.',
  },
  read_already: {
    status: 409,
    title: 'It has been read already',
    detail:
      '{people} of “{className}” had it before their eyes by now, so it cannot be taken back. ' +
      'Its author can hide it: open it, and choose for whom it is.',
  },
  not_later: {
    status: 400,
    title: 'That is no more time',
    detail:
      'Choose a time after the one when it is due for the class. A reading that is never due has no end to put off.',
  },
  // Writing
  stale: {
    status: 409,
    title: 'Somebody changed this meanwhile',
    detail:
      'You changed version {yours}, but version {current} is there by now. Both texts are kept: compare them and save again.',
  },
  id_taken: {
    status: 409,
    title: 'That id is in use',
    detail: 'Something else was stored under the id {id}. Make a new id and send it again.',
  },
  tag_in_use: {
    status: 409,
    title: 'That tag is in use',
    detail:
      '{tags}: in use already. What bears the one and what bears the other could not be told apart any more. Choose another name, or say that they shall become one.',
  },
  not_yours: {
    status: 403,
    title: 'Only its author can do this',
    detail: 'This {what} belongs to {owner}. You can reply to it instead.',
  },
  teachers_only: {
    status: 403,
    title: 'Only teachers can do this',
    detail: 'In this class you are a {role}. Ask a teacher of the class to {action}.',
  },
  live_already: {
    status: 409,
    title: 'Somebody else is showing something',
    detail: '{name} is showing something to this class just now. Follow it, or take over.',
  },
  asks_nobody: {
    status: 409,
    title: 'This note asks nobody',
    detail: 'Only a note for a class can ask its students. Choose a class for the note first.',
  },
  not_asked: {
    status: 403,
    title: 'This question is not for you',
    detail: 'Only the students of the class it is for answer it. You see the answers on the page of its questions.',
  },
  no_answer: {
    status: 400,
    title: 'There is no answer yet',
    detail: '{what}',
  },
  answers_shown: {
    status: 409,
    title: 'The answers are shown',
    detail: 'Since the answers are shown, none can be given or changed any more. Yours stands as you gave it last.',
  },
  answered_already: {
    status: 409,
    title: 'Somebody has answered it',
    detail:
      'What can be answered stays as it was when the first answer came. Change what is right, the model answer or ' +
      'when answers are shown; or ask something new by another note.',
  },
  outside_text: {
    status: 400,
    title: 'That passage is not in the text',
    detail:
      'The passage [{start}, {end}) does not lie in this version, whose text has {length} characters. Select it again.',
  },
  quote_mismatch: {
    status: 400,
    title: 'The words do not match',
    detail:
      'The version has other words at [{start}, {end}) than the quotation sent. Reload the page and select the passage again.',
  },
  old_version: {
    status: 409,
    title: 'There is a newer version',
    detail:
      'This was meant for an older version; version {number} is the newest. Reload the page and choose the place there.',
  },
  one_version: {
    status: 409,
    title: 'There is nothing to compare',
    detail: 'Two different versions are needed to say what changed. Keep the source again once its page has changed.',
  },
  set_already: {
    status: 409,
    title: 'It is set there already',
    detail:
      'In {className} this reading is set otherwise already. Nothing was set: leave it out, or change what is set there.',
  },
  together_already: {
    status: 409,
    title: 'It reads this with others already',
    detail:
      '{className} reads this together with other classes already. Nothing was set: leave it out, or change it there.',
  },
  unknown_kind: {
    status: 400,
    title: 'There is no such kind',
    detail: 'The kind “{code}” is in none of your Legends. Reload the page and choose the kind again.',
  },
  not_in_class: {
    status: 403,
    title: 'You are not in that class',
    detail: 'You can only write for a class you are in. Choose another audience.',
  },
  source_not_in_class: {
    status: 409,
    title: 'The class cannot read this yet',
    detail: '“{className}” does not have this source. Share the source with the class first.',
  },
  last_teacher: {
    status: 409,
    title: 'The class needs a teacher',
    detail: 'There is no other teacher in “{className}”. Make somebody else a teacher first, or delete the class.',
  },
  wrong_code: {
    status: 404,
    title: 'No class has this code',
    detail:
      'No class has the code “{code}”. Compare it with what your teacher wrote: six letters and digits, without O, 0, I or 1.',
  },
} as const satisfies Record<string, Entry>;
