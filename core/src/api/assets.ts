import * as yup from 'yup';
import { assetImportSchema, assetSchema } from '../schemas/data';
import { assetListSchema, assetNamesSchema } from '../schemas/lists';
import {
  amount,
  checkedBy,
  dictionary,
  list,
  shape,
  text,
  textOrNull,
  truth,
  type TypeOf,
  named,
} from '../schemas/shape';
import { contracts, json, nothing } from './contract';

const textOrNumber = () =>
  checkedBy((value): value is string | number => typeof value === 'string' || typeof value === 'number', {
    type: ['string', 'number'],
  });

const assetFields = {
  id: text(),
  parentId: textOrNull(),
  name: text(),
  kind: text(),
  /** IANA zone, its own or inherited. */
  zone: text(),
  /** The plant (topmost asset) it belongs to. */
  plantId: text(),
  /** Its own zone; null = inherited. */
  ownZone: textOrNull(),
  /** Ids of assets from the plant down to this one. */
  path: list(text()),
  /** Their names: "Quayside / Dryers / Dryer 1". */
  title: text(),
  /** Facts about it: "Floor area (m²)": 420, "Maker": "…". */
  attributes: dictionary(textOrNumber()),
};
const asset = named('Asset', shape(assetFields));
export type Asset = TypeOf<typeof asset>;

const listedAsset = shape({
  ...assetFields,
  /** Number of children. */
  children: yup.number().optional(),
  /** Number of its own metrics. */
  metrics: yup.number().optional(),
  /** Number of feeds at or below it that need attention. */
  troubled: yup.number().optional(),
});
/** An asset as a row of the tree. */
export type AssetRow = Required<TypeOf<typeof listedAsset>>;

/** An attribute that assets have, with the values it takes. */
const attributeValues = shape({
  name: text(),
  /** Sorted; the first sixty at most. */
  values: list(textOrNumber()),
  many: truth(),
});

export type AssetInput = TypeOf<typeof assetSchema>;
export type AssetImportRow = TypeOf<typeof assetImportSchema>['rows'][number];

/** A page of a long list with the total. */
export const pageOf = <Item extends yup.ISchema<unknown>>(item: Item) =>
  shape({ items: list(item), total: amount() });
export interface PageOf<Item> {
  readonly items: readonly Item[];
  readonly total: number;
}

export const assetsApi = contracts({
  'GET /api/assets': {
    access: 'viewer',
    summary:
      'Assets by full name: by id, below another, or matching the beginnings of words in name, kind and attributes.',
    query: assetListSchema,
    answer: json(
      pageOf(listedAsset),
      'with facts=true also children, metrics and troubled (feeds at or below that need a look)',
    ),
  },
  'GET /api/assets/attributes': {
    access: 'viewer',
    summary: 'Attributes in use, with their values.',
    answer: json(list(attributeValues), 'values: the first 60, sorted; many: whether there are more'),
  },
  'POST /api/assets/named': {
    access: 'viewer',
    summary: 'Assets with one of these names, ignoring case: lookup for names in a file.',
    body: assetNamesSchema,
    answer: json(list(asset), 'sorted by full name'),
  },
  'POST /api/assets': {
    access: 'analyst',
    summary: 'Adds an asset. One without a parent is a plant and needs a time zone.',
    body: assetSchema,
    answer: json(asset),
    errors: { 422: 'BAD_INPUT when the name is taken or the parent is missing' },
  },
  'PUT /api/assets/:id': {
    access: 'analyst',
    summary: 'Renames, moves or describes an asset.',
    body: assetSchema,
    answer: json(asset),
    errors: { 422: 'BAD_INPUT when the name is taken or it would become its own descendant' },
  },
  'DELETE /api/assets/:id': {
    access: 'analyst',
    summary: 'Removes an asset without dependents.',
    answer: nothing,
    errors: { 409: 'WRONG_STATE names the dependents' },
  },
  'POST /api/assets/list': {
    access: 'analyst',
    summary: 'Adds a list of assets by path from the plant down, for example from a file.',
    body: assetImportSchema,
    limit: 5_000_000,
    answer: json(
      shape({
        added: amount(),
        changed: amount(),
        refused: list(shape({ line: amount(), reason: text() })),
      }),
    ),
  },
});
