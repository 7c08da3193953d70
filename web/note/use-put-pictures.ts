import { useRef } from 'react';
import type { Editor } from '@tiptap/react';
import { linkAddress } from '@avrelle/core/note';
import type { StoredPicture } from '@avrelle/core/wire';
import { wordsOf as wordsOfError } from '../data/api';
import { call } from '../data/call';

export type PutPictures = (editor: Editor, files: readonly File[]) => boolean;

/** Sends the pictures among files, each put where one writes once it has come; false where there are none. */
export function usePutPictures(
  onSending: ((sending: boolean, failed: boolean) => void) | undefined,
  tell: (words: string) => void,
): PutPictures {
  /** How many are on their way. */
  const sending = useRef(0);
  const ended = (words: string): void => {
    tell(words);
    sending.current--;
    if (sending.current === 0 || words) onSending?.(sending.current > 0, words !== '');
  };
  return (editor, files) => {
    const pictures = files.filter((file) => file.type.startsWith('image/'));
    for (const file of pictures) {
      tell('Putting in the picture…');
      sending.current++;
      onSending?.(true, false);
      const put = ({ hash }: StoredPicture): void => {
        const attrs = { src: linkAddress({ type: 'picture', id: hash }), alt: file.name.replace(/\.[a-z]+$/i, '') };
        editor.chain().focus().insertContent({ type: 'picture', attrs }).run();
        ended('');
      };
      call('POST /api/pictures', { file }).then(put, (error: unknown) => ended(wordsOfError(error)));
    }
    return pictures.length > 0;
  };
}
