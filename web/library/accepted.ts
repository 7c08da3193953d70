/** Endings of the files that can be kept, for choosing one. */
export const ACCEPTED =
  '.html,.htm,.xhtml,.zip,.mhtml,.mht,.warc,.gz,.pdf,.epub,.docx,.md,.markdown,.txt,.csv,.tsv,.png,.jpg,.jpeg,.gif,.webp,.avif,.svg,.mp3,.ogg,.oga,.opus,.wav,.m4a,.flac,.mp4,.m4v,.webm,.ogv,.vtt,.srt,.eml';
