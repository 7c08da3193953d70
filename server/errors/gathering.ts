import type { Entry } from './entry';

/** Of fetching, files, lists, feeds and letters. */
export const GATHERING = {
  // Fetching
  bad_address: {
    status: 400,
    title: 'That is not a web address',
    detail:
      '“{address}” cannot be opened. An address begins with http:// or https:// and names a host, as in https://review.saltmere.test/marsh.',
  },
  unknown_host: {
    status: 422,
    title: 'No such site',
    detail: 'There is no site called “{host}”. Check the spelling of the address.',
  },
  private_address: {
    status: 422,
    title: 'That address is inside a private network',
    detail:
      '“{host}” leads into a private network, which Avrelle does not open for anybody. Save the page in your browser and upload the file.',
  },
  unreachable: {
    status: 422,
    title: 'The site does not answer',
    detail:
      '“{host}” could not be reached ({reason}). Try again later, or save the page in your browser and upload the file.',
  },
  page_missing: {
    status: 422,
    title: 'The site has no such page',
    detail:
      '“{address}” answered {status}. Check the address; the page may be gone. If you have it open in a browser, save it there and upload the file.',
  },
  site_failed: {
    status: 422,
    title: 'The site is in trouble',
    detail:
      '“{address}” answered {status}, an error of its own. Try again later, or save the page in your browser and upload the file.',
  },
  refused_by_site: {
    status: 422,
    title: 'The site does not let us in',
    detail:
      '“{address}” answered {status}: it wants a sign-in or refuses programs. Save the page in your browser and upload the file.',
  },
  too_large: {
    status: 422,
    title: 'That is too large',
    detail: '“{address}” has more than {limit} MB. Save the main text as a file and upload that.',
  },
  too_slow: {
    status: 422,
    title: 'That took too long',
    detail:
      '“{address}” was not complete after {seconds} seconds. Try again later, or save the page in your browser and upload the file.',
  },
  too_complex: {
    status: 422,
    title: 'That page is too much for one page',
    detail: '“{address}” cannot be read as one page: {reason}. Save its main text as a file and upload that.',
  },
  too_heavy: {
    status: 422,
    title: 'That needs too much',
    detail:
      '“{address}” needs more memory than one page or file may take. Save its main text as a file and upload that, or split it.',
  },
  redirect_loop: {
    status: 422,
    title: 'The address runs in a circle',
    detail: '“{address}” redirected more than {limit} times. Open it in your browser and paste the address it ends at.',
  },
  wrong_type: {
    status: 422,
    title: 'That is nothing Avrelle keeps',
    detail:
      '“{address}” is of the type {type}. Avrelle keeps web pages, PDF, EPUB, word-processor documents (.docx), Markdown, plain text, tables (CSV), pictures, recordings, letters (.eml) and saved pages (zip, MHTML, WARC).',
  },
  empty_page: {
    status: 422,
    title: 'There is nothing to read',
    detail:
      '“{address}” holds no text. If it shows some in your browser, a script makes it: save the page there and upload the file.',
  },
  no_address: {
    status: 409,
    title: 'This has no address',
    detail:
      '“{title}” came as a file, so there is no page to fetch again. Upload its newer file as a new version instead.',
  },
  // Files
  wrong_encoding: {
    status: 422,
    title: 'The file is in another encoding',
    detail: '“{name}” is not valid {encoding}: byte {at} cannot be read. Save it as UTF-8 and upload it again.',
  },
  not_text: {
    status: 422,
    title: 'That is not a text file',
    detail:
      '“{name}” holds bytes that no text has. If it is a PDF, a book or a picture, give it the ending that says so and upload it again.',
  },
  no_room: {
    status: 413,
    title: 'There is no more room for you',
    detail:
      'What you keep would take {used} MB; {limit} MB are yours. Delete sources you need no longer (they make room when their thirty days are over), or ask whoever runs this Avrelle for more.',
  },
  file_too_large: {
    status: 413,
    title: 'That file is too large',
    detail: 'The file has more than {limit} MB. Split it, or save only its main text.',
  },
  no_file: { status: 400, title: 'No file came', detail: 'The upload held no file. Choose a file and send it again.' },
  empty_file: {
    status: 422,
    title: 'The file is empty',
    detail: '“{name}” has no bytes at all. Save it once more where it comes from and upload that.',
  },
  wrong_content: {
    status: 422,
    title: 'The file is not what its name says',
    detail:
      '“{name}” is called a {format} file, but its content is something else. Open it where it comes from, save it anew and upload that.',
  },
  cut_off: {
    status: 422,
    title: 'The file is cut off',
    detail: '“{name}” ends before its end ({reason}). Download or save it once more and upload that.',
  },
  bad_archive: {
    status: 422,
    title: 'The archive cannot be unpacked',
    detail: '“{name}” is broken or not to be trusted ({reason}). Pack the page and its folder anew and upload that.',
  },
  archive_too_large: {
    status: 422,
    title: 'The archive holds too much',
    detail: '“{name}” would unpack to more than {entries} files or {limit} MB. Pack only the page and its own folder.',
  },
  locked_archive: {
    status: 422,
    title: 'The archive is locked',
    detail: '“{name}” is protected by a password. Pack the page and its folder without one.',
  },
  no_page_inside: {
    status: 422,
    title: 'There is no page inside',
    detail:
      '“{name}” was unpacked, but holds no web page. Save the page in your browser, complete, and pack the HTML file with its folder.',
  },
  bad_table: {
    status: 422,
    title: 'The table cannot be read',
    detail: 'Row {row} of “{name}” is broken ({reason}). Mend its quotation marks and upload it again.',
  },
  too_many_rows: {
    status: 422,
    title: 'The table is too long',
    detail: '“{name}” has {rows} rows; {limit} can be read as a text. Keep the part you mean to mark.',
  },
  bad_pdf: {
    status: 422,
    title: 'The PDF cannot be read',
    detail:
      '“{name}” is cut off or broken ({reason}). Download it once more, or open it in another program and save it from there.',
  },
  too_many_pages: {
    status: 422,
    title: 'The PDF has too many pages',
    detail: '“{name}” has {pages} pages; {limit} can be kept in one source. Split it and upload the parts.',
  },
  password_needed: {
    status: 422,
    title: 'The file wants a password',
    detail:
      '“{name}” opens with a password only. Enter it here; it is kept with the source, so that those who may read it can.',
  },
  password_mismatch: {
    status: 422,
    title: 'That is not its password',
    detail: '“{name}” does not open with this password. Capital letters count; try again.',
  },
  bad_book: {
    status: 422,
    title: 'The book cannot be read',
    detail: '“{name}” is no complete EPUB: {reason}. Download it once more, or make it anew.',
  },
  locked_book: {
    status: 422,
    title: 'The book is locked',
    detail:
      '“{name}” is encrypted for one reading program. Ask for a copy without that lock, or keep a link to the book instead.',
  },
  bad_document: {
    status: 422,
    title: 'The document cannot be read',
    detail:
      '“{name}” is no complete .docx document: {reason}. Open it in a word processor and save it anew, or as PDF.',
  },
  bad_letter: {
    status: 422,
    title: 'The letter cannot be read',
    detail: '“{name}” is no letter: {reason}. Save it from your mail program as .eml and upload that.',
  },
  bad_transcript: {
    status: 422,
    title: 'The transcript cannot be read',
    detail:
      '“{name}” gives no words with times: {reason}. Use WebVTT, SRT, or lines that begin with a time, as in “1:05 words”.',
  },
  no_recording: {
    status: 422,
    title: 'A transcript needs its recording',
    detail:
      '“{name}” holds the words of a recording. Upload it together with the sound or film, or choose it as a newer file of the recording.',
  },
  not_a_picture: {
    status: 409,
    title: 'This is no picture',
    detail:
      '“{title}” is no picture. Only a picture can be cropped or blacked out; keep an area of a page as a picture first.',
  },
  picture_changed: {
    status: 409,
    title: 'The picture was changed meanwhile',
    detail: 'There is another picture here than the one you worked on. Reload the page, and do it again on that one.',
  },
  list_full: {
    status: 409,
    title: 'The list is full',
    detail:
      'There is room for {limit} {what} in {where}. Delete some that are not needed any more, or sort them into others.',
  },
  // Lists, feeds, letters
  no_addresses: {
    status: 400,
    title: 'No addresses in there',
    detail:
      'Nothing that begins with http:// or https:// was found. Paste one address a line, or choose a text, CSV or bookmarks file.',
  },
  too_many_addresses: {
    status: 400,
    title: 'Too many at once',
    detail: 'There are {count} addresses; {limit} can be kept in one go. Split the list.',
  },
  still_running: {
    status: 409,
    title: 'One page is still being fetched',
    detail: 'A page of “{label}” is being fetched just now. The list is paused; take it away in a moment.',
  },
  robots_refuse: {
    status: 422,
    title: 'The site asks programs to stay out',
    detail:
      'The robots.txt of “{host}” asks programs not to fetch “{address}” in bulk. Keep this one by itself, by its address.',
  },
  no_feed: {
    status: 422,
    title: 'No feed found there',
    detail:
      '“{address}” is no feed and names none. Look on the site for RSS, Atom or JSON Feed and paste that address.',
  },
  bad_feed: {
    status: 422,
    title: 'The feed cannot be read',
    detail: '“{address}” says it is a feed, but is broken ({reason}). Tell whoever keeps the site, or try again later.',
  },
  bad_range: {
    status: 416,
    title: 'There is no such part',
    detail: 'The part “{range}” was asked of a file of {size} bytes. Load the page again.',
  },
  unreadable: {
    status: 422,
    title: 'The page could not be read',
    detail: '“{address}” could not be taken apart ({reason}). Save it in your browser and upload the file.',
  },
} as const satisfies Record<string, Entry>;
