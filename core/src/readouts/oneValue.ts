import { valuesRequests, valuesData } from './valuesData';
import { VALUE_SLOTS } from './slots';
import { valuesTable } from './table';

/** Defaults of most forms: one value of the window, or one per group, with the previous value. */
export const ONE_VALUE = {
  measures: 'some',
  overTime: false,
  groupedMeasures: 'first',
  splits: false,
  compare: 'before',
  halfOnPhone: false,
  smallPreview: false,
  requests: valuesRequests,
  further: () => [],
  facts: () => [],
  data: valuesData,
  along: () => null,
  table: valuesTable,
  slots: VALUE_SLOTS,
} as const;

/** Fields of a form without choices of its own. */
export const NO_CHOICES = { fields: {}, defaults: {} } as const;
