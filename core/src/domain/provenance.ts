import { intervalSchema } from '../time/interval';
import { amount, amountOrNull, list, oneOf, shape, text, type TypeOf, named } from '../schemas/shape';

const provenanceSource = shape({
  kind: oneOf(['file', 'push'] as const),
  name: text(),
  importedAt: amountOrNull(),
  samples: amountOrNull(),
});
/** The source of samples in the window: an imported file, or pushes. */
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
  /** Its inputs. */
  basis: oneOf(['samples', 'rollup', 'derived', 'reference'] as const),
  sources: list(provenanceSource),
});
/** One metric used by a number. */
export type ProvenancePart = TypeOf<typeof provenancePart>;

const dividedBy = shape({
  /** The attribute. */
  name: text(),
  total: amount(),
  holders: list(shape({ assetId: text(), assetName: text(), value: amount() })),
  /** Metrics that do not count, because no asset of theirs has it as a number above 0. */
  leftOut: list(text()),
});

/** How a number was made. */
export const provenanceSchema = named(
  'Provenance',
  shape({
    formula: text(),
    window: intervalSchema,
    zone: text(),
    parts: list(provenancePart),
    minimumCoverage: amount(),
    /** Of a ratio that is not covered all the time: share of the time in which both sides have data, 0 to 1. */
    shared: amountOrNull(),
    /** The attribute it was divided by, with the assets that have it. */
    dividedBy: dividedBy.optional(),
  }),
);
export type Provenance = TypeOf<typeof provenanceSchema>;
