import { string } from 'yup';
import { keyPutSchema, replaceKindSchema, type Keys, type OwnedKey } from '../wire';
import { endpoint } from './endpoint';
import { amount, fields, flag, id, ids, list, shape } from './shape';
import { byName } from './shapes/lists';
import { kind } from './shapes/marks';

const ownedKey = shape<OwnedKey>()(
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
export const listKinds = endpoint('GET', '/api/keys', {
  answer: shape<Keys>()(fields({ mine: ownedKey, classes: list(ownedKey) })),
});
/** `:id` is the person or the class. */
export const putKinds = endpoint('PUT', '/api/keys/:id', {
  may: { thing: 'kinds', as: 'owner', to: 'change its Key' },
  body: keyPutSchema,
  answer: ownedKey,
});
/** Every annotation of one kind becomes one of another of the same set. */
export const replaceKind = endpoint('POST', '/api/keys/:id/replace', {
  may: { thing: 'kinds', as: 'owner', to: 'change its Key' },
  body: replaceKindSchema,
  answer: fields({ ids: ids() }),
});
