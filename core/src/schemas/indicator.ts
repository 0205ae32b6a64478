import * as yup from 'yup';
import { DISPLAY_SCALES } from '../board/board';
import { checkBand, checkCuts, DIRECTIONS } from '../bands/targetBand';
import { BeaconError } from '../errors';
import { REFERENCE_PERIODS } from '../domain/reference';
import { BASELINE_STRETCHES } from '../indicators/baseline';
import { needsTarget, PRORATIONS, type Judge } from '../indicators/definition';
import { bandSchema, dateText, finite, idText, measureSchema, ownCutsShape, windowSchema } from './parts';
import { hoursSchema } from './query';

/** Fields that only one kind has. */
const of = <S extends yup.Schema>(kinds: readonly string[], schema: S) =>
  yup.mixed().when('kind', {
    is: (kind: string) => kinds.includes(kind),
    then: () => schema,
    otherwise: () => yup.mixed().strip(),
  });
const kindOf = (...kinds: string[]) => yup.string().oneOf(kinds).required();

export const judgeSchema = yup
  .object({
    kind: kindOf('limits', 'target', 'targetCuts'),
    band: of(['limits'], bandSchema.required()),
    direction: of(
      ['target'],
      yup
        .string()
        .oneOf([...DIRECTIONS])
        .required(),
    ),
    clear: of(['target'], finite().min(0).max(1000).required('Give the share for Clear')),
    caution: of(['target'], finite().min(0).max(1000).required('Give the share for Caution')),
    cuts: of(['targetCuts'], ownCutsShape.cuts),
    levels: of(['targetCuts'], ownCutsShape.levels),
  })
  .noUnknown()
  .test('order', 'Caution must begin at or before Clear', (judge) => {
    const { kind, clear, caution } = judge as { kind: string; clear?: number; caution?: number };
    return kind !== 'target' || caution! <= clear!;
  })
  .test('band', (given, { createError }) => {
    const judge = given as unknown as Judge;
    try {
      if (judge.kind === 'limits') checkBand(judge.band);
      if (judge.kind === 'targetCuts') checkCuts(judge);
      return true;
    } catch (error) {
      // A field that is missing altogether is told by its own rule.
      return error instanceof BeaconError ? createError({ message: error.message }) : true;
    }
  });

/** Typed in by period it must be said, for one value it may be; others have none. */
function prorateOf(kind: string) {
  const prorate = yup.string().oneOf([...PRORATIONS]);
  if (kind === 'periods') return prorate.required();
  return kind === 'fixed' ? prorate : prorate.strip();
}

const baselineWeeks = () =>
  yup
    .number()
    .integer()
    .min(BASELINE_STRETCHES.least, 'A baseline rests on ${min} weeks at least')
    .max(BASELINE_STRETCHES.most, 'A baseline rests on ${max} weeks at most')
    .required('Give how many weeks the baseline rests on');

export const targetSourceSchema = yup
  .object({
    kind: kindOf('none', 'fixed', 'periods', 'measure', 'lastYear', 'baseline'),
    value: of(['fixed'], finite().required('Give the target')),
    period: of(
      ['periods'],
      yup
        .string()
        .oneOf([...REFERENCE_PERIODS])
        .required(),
    ),
    prorate: yup.string().when('kind', ([kind]: string[]) => prorateOf(kind)),
    measure: of(['measure'], measureSchema.required()),
    factor: of(['measure'], finite().required()),
    weeks: of(['baseline'], baselineWeeks()),
    percent: of(['lastYear', 'baseline'], finite().min(-100).max(1000).required('Give the percentage')),
  })
  .noUnknown();

export const referenceSourceSchema = yup
  .object({
    kind: kindOf('none', 'fixed', 'before', 'lastYear', 'measure', 'baseline'),
    value: of(['fixed'], finite().required('Give the reference')),
    weeks: of(['baseline'], baselineWeeks()),
    measure: of(['measure'], measureSchema.required()),
  })
  .noUnknown();

export const indicatorSchema = yup
  .object({
    name: yup.string().trim().min(1, 'Give it a name').max(120).required('Give it a name'),
    description: yup.string().trim().max(2000).default(''),
    assetId: idText().required('Choose the asset'),
    ownerId: idText().nullable().default(null),
    measure: measureSchema.required('Choose what is measured'),
    window: windowSchema.required(),
    hours: hoursSchema.nullable().default(null),
    judge: judgeSchema.required(),
    target: targetSourceSchema.required(),
    reference: referenceSourceSchema.required(),
    decimals: yup.number().integer().min(0).max(6).required(),
    display: yup
      .string()
      .oneOf([...DISPLAY_SCALES])
      .default('units'),
    boardId: idText().nullable().default(null),
  })
  .noUnknown()
  .test('needsTarget', 'Shares of a target need a target: choose where it comes from', (definition) => {
    const { judge, target } = definition as unknown as { judge?: Judge; target?: { kind?: string } };
    return !judge || !needsTarget(judge) || target?.kind !== 'none';
  });

/** Targets typed in by period; null takes one away. */
export const periodTargetsSchema = yup
  .object({
    values: yup
      .array(
        yup
          .object({
            start: dateText('A period begins on a date such as 2026-11-01').required(),
            value: finite().nullable().defined(),
          })
          .noUnknown()
          .required(),
      )
      .max(400)
      .required(),
  })
  .noUnknown();
