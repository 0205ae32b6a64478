import { definitionSchema } from '../domain/derived';
import { derivedSchema, expressionSchema, factorSchema, savedFactorSchema } from '../schemas/derived';
import { amountOrNull, amounts, amountsOrNulls, list, shape, text, type TypeOf } from '../schemas/shape';
import { intervalSchema } from '../time/interval';
import { contracts, json } from './contract';
import { metric } from './metrics';

const expressionPreview = shape({
  /** The chosen unit, otherwise the resulting one. */
  unit: text(),
  foundUnit: text(),
  zone: text(),
  window: intervalSchema,
  /** ms. */
  t: amounts(),
  v: amountsOrNulls(),
  value: amountOrNull(),
  /** null = calculated sample by sample. */
  coverage: amountOrNull(),
});
/** Results of an expression over the last day; null = missing. */
export type ExpressionPreview = TypeOf<typeof expressionPreview>;

const derived = definitionSchema.shape({ metricId: text() }).noUnknown().required();
/** The expression of a derived metric. */
export type Derived = TypeOf<typeof derived>;

const factor = factorSchema.shape({ id: text() }).required();
/** An equivalence factor with its values by the date they hold from. */
export type Factor = TypeOf<typeof factor>;

export type ExpressionInput = TypeOf<typeof expressionSchema>;
export type DerivedInput = TypeOf<typeof derivedSchema>;

const WRONG_EXPRESSION =
  'BAD_INPUT for a wrong expression, incompatible units, a taken name, or a cycle (named)';

export const derivedApi = contracts({
  'GET /api/derived/functions': {
    access: 'viewer',
    summary: 'The functions an expression may use.',
    answer: json(list(shape({ name: text(), form: text(), does: text() }))),
  },
  'POST /api/derived/preview': {
    access: 'analyst',
    summary: 'Evaluates an expression over the last day, with its unit, without saving anything.',
    body: expressionSchema,
    answer: json(expressionPreview, 'v: null = missing'),
    errors: {
      404: 'NOT_FOUND for a missing metric',
      422: 'BAD_INPUT with the reason and position',
    },
  },
  'GET /api/derived/:id': {
    access: 'viewer',
    summary: 'The expression of a derived metric.',
    answer: json(derived),
  },
  'POST /api/derived': {
    access: 'analyst',
    summary: 'Adds a derived metric: an expression over named metrics, attributes and factors.',
    body: derivedSchema,
    answer: json(metric),
    errors: { 404: 'NOT_FOUND for a missing metric', 422: WRONG_EXPRESSION },
  },
  'PUT /api/derived/:id': {
    access: 'analyst',
    summary: 'Changes the expression, name or unit of a derived metric.',
    body: derivedSchema,
    answer: json(metric),
    errors: { 422: WRONG_EXPRESSION },
  },
  'GET /api/factors': {
    access: 'viewer',
    summary: 'Equivalence factors with their values by date.',
    answer: json(list(factor)),
  },
  'POST /api/factors': {
    access: 'analyst',
    everywhere: true,
    summary: 'Adds an equivalence factor, or changes the one with this id.',
    body: savedFactorSchema,
    answer: json(shape({ id: text() })),
    errors: { 404: 'NOT_FOUND', 422: 'BAD_INPUT when the name is taken' },
  },
});
