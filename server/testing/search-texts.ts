/** Texts in many scripts, of two people, to be searched. */
export const TEXTS: readonly (readonly [title: string, text: string, mine: boolean])[] = [
  [
    'Levées',
    'Near the creeks the water slows. A levée is a low bank of coarser silt. Behind it lies the Salt Pan.',
    true,
  ],
  ['Mud and marsh', 'The marsh grows by mud. Sea-lavender holds the mud; the MUD holds nothing. 417 pegs.', true],
  ['潮と泥', '潮が引くと泥の干潟があらわれる。泥は川から来る。', true],
  ['Straße am Ufer', 'Die Straße liegt am Ufer. Ein Deich schützt sie vor der Flut.', true],
  ['The keeper’s book', 'The keeper wrote of mud, of eels, and of the tide at Saltmere.', false],
  ['Eels', 'Eels are not what they were. Nobody counts the eels of the marsh.', false],
];
/** Notes on them; `shared` with the class both are in. */
export const NOTES: readonly (readonly [
  source: string,
  quote: string,
  note: string,
  kind: string,
  tags: string[],
  shared: boolean,
])[] = [
  ['Levées', 'levée', 'A low bank, as in the glossary', 'term', ['words', 'essay/opening'], true],
  ['Mud and marsh', 'mud', '', 'claim', [], true],
  ['Mud and marsh', 'Sea-lavender', 'Why this one?', 'question', ['plants'], false],
  ['潮と泥', '干潟', '泥 means mud', 'term', [], false],
  ['The keeper’s book', 'eels', 'Ask Bram about the eels', 'question', ['essay'], true],
  ['Eels', 'Nobody counts', 'and so nobody knows', 'doubt', [], false],
];
