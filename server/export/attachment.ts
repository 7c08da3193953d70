/** RFC 6266: an ASCII name for old programs, the real one beside it. */
export const attachment = (name: string): string =>
  `attachment; filename="${name.replace(/[^\x20-\x7e]|"/g, '_')}"; filename*=UTF-8''${encodeURIComponent(name)}`;
