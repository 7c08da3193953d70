import Code from '@tiptap/extension-code';
import StarterKit from '@tiptap/starter-kit';
import { Formula, FormulaBlock, Picture } from './nodes';
import { isTypedAddress } from './pasted';

/** Code may stand in bold words. */
const CodeInWords = Code.extend({ excludes: '' });

const STARTER = StarterKit.configure({
  underline: false,
  strike: false,
  code: false,
  link: {
    openOnClick: false,
    shouldAutoLink: isTypedAddress,
    protocols: ['avrelle'],
    isAllowedUri: (address, { defaultValidate }) => address.startsWith('avrelle:') || defaultValidate(address),
  },
});

/** What every note is written with. */
export const WORDS_AND_LISTS = [STARTER, CodeInWords, Formula, FormulaBlock, Picture];
