import { intervalSchema } from '../time/interval';
import { amount, amountOrNull, list, oneOf, shape, text, type TypeOf, named } from '../schemas/shape';

const provenanceSource = shape({
  kind: oneOf(['file', 'push'] as const),
  name: text(),
  importedAt: amountOrNull(),
  samples: amountOrNull(),
});
/** Where samples of the window came from: a file that was brought in, or pushes. */
export type ProvenanceSource = TypeOf<typeof provenanceSource>;

const provenancePart = shape({
  metricId: text(),
  metricName: text(),
  assetName: text(),
  summary: text(),
  unit: text(),
  samples: amount(),
  coverage: amount(),
  value: amountOrNull(),
  /** What it was computed from. */
  basis: oneOf(['samples', 'rollup', 'derived', 'reference'] as const),
  sources: list(provenanceSource),
});
/** One metric as a number used it. */
export type ProvenancePart = TypeOf<typeof provenancePart>;

/** How a number was made. */
export const provenanceSchema = named(
  'Provenance',
  shape({
    formula: text(),
    window: intervalSchema,
    zone: text(),
    parts: list(provenancePart),
    minimumCoverage: amount(),
  }),
);
export type Provenance = TypeOf<typeof provenanceSchema>;
