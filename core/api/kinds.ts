import { string } from 'yup';
import { legendPutSchema, replaceKindSchema, type Legends, type OwnedLegend } from '../wire';
import { endpoint } from './endpoint';
import { amount, fields, flag, id, ids, list, shape } from './shape';
import { byName } from './shapes/lists';
import { kind } from './shapes/marks';

const ownedLegend = shape<OwnedLegend>()(
  fields({
    ownerId: id(),
    className: string().nullable().defined(),
    kinds: list(kind),
    uses: byName('number'),
    version: amount(),
    mayEdit: flag(),
  }),
);

/** A person's own kinds and those of their classes. */
export const listKinds = endpoint('GET', '/api/legends', {
  answer: shape<Legends>()(fields({ mine: ownedLegend, classes: list(ownedLegend) })),
});
/** `:id` is the person or the class. */
export const putKinds = endpoint('PUT', '/api/legends/:id', {
  may: { thing: 'kinds', as: 'owner', to: 'change its Legend' },
  body: legendPutSchema,
  answer: ownedLegend,
});
/** Every annotation of one kind becomes one of another of the same set. */
export const replaceKind = endpoint('POST', '/api/legends/:id/replace', {
  may: { thing: 'kinds', as: 'owner', to: 'change its Legend' },
  body: replaceKindSchema,
  answer: fields({ ids: ids() }),
});
