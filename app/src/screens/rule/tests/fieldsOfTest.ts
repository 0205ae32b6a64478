import type { ComponentType } from 'react';
import type { AlarmTest, AlarmTestKind } from '@vivid-beacon/core';
import { BaselineFields } from './BaselineFields';
import { ChangeFields } from './ChangeFields';
import { ConsumptionFields } from './ConsumptionFields';
import { LevelFields } from './LevelFields';
import { LimitFields } from './LimitFields';
import { OutsideFields } from './OutsideFields';
import { RunRulesFields } from './RunRulesFields';
import { SilenceFields } from './SilenceFields';
import { StateFields } from './StateFields';
import type { FieldsProps } from './fields';

/** The fields of each test: a new one is a line here, which the compiler asks for. */
const FIELDS: { readonly [Kind in AlarmTestKind]: ComponentType<FieldsProps<Kind>> } = {
  limit: LimitFields,
  level: LevelFields,
  outside: OutsideFields,
  change: ChangeFields,
  silence: SilenceFields,
  consumption: ConsumptionFields,
  state: StateFields,
  runRules: RunRulesFields,
  baseline: BaselineFields,
};

/** Draws the fields of a test. */
export const fieldsOfTest = (test: AlarmTest) =>
  FIELDS[test.kind] as ComponentType<FieldsProps<AlarmTestKind>>;
