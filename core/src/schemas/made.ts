import * as yup from 'yup';
import { metricFields } from './data';
import { countedNumber, idText } from './parts';
import type { TypeOf } from './shape';

const MAX_MADE = 10_000;

/** Stands for a metric that is made with its samples: "new-0". */
export const MADE_METRIC = /^new-(\d{1,6})$/;

/** Assets and metrics that come into being with the samples of a file. */
export const madeSchema = yup
  .object({
    assets: yup
      .array(
        yup
          .object({
            name: yup.string().trim().min(1, 'Give the asset a name').max(200).required(),
            /** An asset that is there, or the place in this list of one before it; neither for a plant. */
            parentId: idText().nullable().default(null),
            parent: countedNumber().nullable().default(null),
            zone: yup.string().max(60).nullable().default(null),
          })
          .noUnknown(),
      )
      .max(MAX_MADE)
      .default([]),
    metrics: yup
      .array(
        yup
          .object({
            ref: yup.string().matches(MADE_METRIC, 'ref must be new-0, new-1 …').required(),
            assetId: idText().nullable().default(null),
            asset: countedNumber().nullable().default(null),
            name: metricFields.name,
            unit: metricFields.unit,
            kind: metricFields.kind,
            intervalMs: metricFields.intervalMs,
            stamped: metricFields.stamped,
            decimals: yup.number().integer().min(0).max(12).default(1),
          })
          .noUnknown(),
      )
      .max(MAX_MADE)
      .default([]),
  })
  .noUnknown();
export type MadeWithFile = TypeOf<typeof madeSchema>;
