import * as yup from 'yup';
import { REMARK_KINDS, stretchRemarkSchema } from '../schemas/logs';
import { fromAndTo, idText } from '../schemas/parts';
import { amount, list, oneOf, shape, text, type TypeOf, named } from '../schemas/shape';
import { contracts, json, nothing } from './contract';

export const stretchRemark = named(
  'StretchRemark',
  shape({
    id: text(),
    assetId: text(),
    assetName: text(),
    start: amount(),
    end: amount(),
    kind: oneOf(REMARK_KINDS),
    text: text(),
    author: text(),
    writtenAt: amount(),
  }),
);
/** A remark on a stretch of time of an asset. Times in ms. */
export type StretchRemark = TypeOf<typeof stretchRemark>;
export type RemarkInput = TypeOf<typeof stretchRemarkSchema>;

export const remarksApi = contracts({
  'GET /api/remarks': {
    access: 'viewer',
    summary: 'Remarks on an asset that touch a stretch of time.',
    query: yup.object({ assetId: idText().required(), ...fromAndTo() }).noUnknown(),
    answer: json(list(stretchRemark)),
  },
  'POST /api/remarks': {
    access: 'operator',
    summary: 'Adds a remark to a stretch of time of an asset.',
    body: stretchRemarkSchema,
    answer: json(shape({ id: text() })),
  },
  'DELETE /api/remarks/:id': { access: 'operator', summary: 'Removes a remark.', answer: nothing },
});
