import { LEVEL_WORDS } from '../bands/targetBand';
import type { ValuesData } from './valuesData';
import { isLit } from './stateWords';

/** The numbers of a readout as rows, unrounded. */
export interface Table {
  readonly columns: readonly TableColumn[];
  /** One value per column; null = unknown. */
  readonly rows: readonly (readonly (string | number | null)[])[];
}

export interface TableColumn {
  readonly name: string;
  /** "" = none. */
  readonly unit: string;
  /** Whether its values are times, ms. */
  readonly isTime?: boolean;
}

/** Values as rows: name, value, level, reference, coverage in percent, newest sample. */
export function valuesTable({ values, readout }: ValuesData): Table {
  const { unit } = values[0];
  const units = new Set(values.map((part) => part.unit)).size > 1;
  return {
    columns: [
      { name: 'Name', unit: '' },
      { name: 'Value', unit: units ? '' : unit },
      ...(units ? [{ name: 'Unit', unit: '' }] : []),
      { name: 'Level', unit: '' },
      { name: 'Compared with', unit: units ? '' : unit },
      { name: 'Coverage', unit: '%' },
      { name: 'As of', unit: '', isTime: true },
    ],
    rows: values.map((part) => [
      part.name,
      part.value,
      ...(units ? [part.unit] : []),
      isLit(part, readout.band) ? LEVEL_WORDS[part.level] : null,
      part.previous,
      part.coverage * 100,
      part.asOf,
    ]),
  };
}
