import type { SamplePerson } from '@avrelle/core/wire';

export interface DemoPerson {
  readonly key: string;
  readonly name: string;
  readonly classes: readonly ('A' | 'B')[];
}

export const PASSWORD = 'tide at seven';
export const emailOf = (key: string): string => `${key}@college.saltmere.test`;

export const TEACHER: DemoPerson = { key: 'aldous', name: 'Dr Aldous', classes: ['A', 'B'] };

export const STUDENTS: readonly DemoPerson[] = [
  { key: 'ines', name: 'Ines Kestle', classes: ['B'] },
  { key: 'tomas', name: 'Tomas Rell', classes: ['B'] },
  { key: 'priya', name: 'Priya Nandal', classes: ['B'] },
  { key: 'kit', name: 'Kit Ansell', classes: ['B'] },
  { key: 'luz', name: 'Luz Varga', classes: ['B'] },
  { key: 'sten', name: 'Sten Hagen', classes: ['B'] },
  { key: 'anneke', name: 'Anneke Dorn', classes: ['A', 'B'] },
  { key: 'hollis', name: 'Hollis Byrne', classes: ['A', 'B'] },
  { key: 'greta', name: 'Greta Lund', classes: ['A', 'B'] },
  { key: 'wim', name: 'Wim Sorley', classes: ['B'] },
  { key: 'cal', name: 'Cal Merrow', classes: ['A'] },
  { key: 'esme', name: 'Esme Tarn', classes: ['A'] },
  { key: 'farid', name: 'Farid Osgood', classes: ['A'] },
  { key: 'jory', name: 'Jory Pell', classes: ['A'] },
];

const sample = (key: string, about: string): SamplePerson => ({
  name: [TEACHER, ...STUDENTS].find((person) => person.key === key)!.name,
  about,
  email: emailOf(key),
  password: PASSWORD,
});

/** Who may be tried out without an account of one's own: one of each kind of reader. */
export const SAMPLES: readonly SamplePerson[] = [
  sample('ines', 'A student who has read and marked a lot, and writes an essay on the marsh.'),
  sample('tomas', 'A student of the same course: what Ines shares, seen from the other side.'),
  sample('aldous', 'The teacher of both courses, who also looks after all accounts.'),
  sample('cal', 'A student of the other course: sees other readings, and other people’s notes.'),
];
