import {
  attributeOf,
  BeaconError,
  SUMMARIES_OF_KIND,
  type Binding,
  type DerivedDefinition,
  type DerivedWay,
  type Summary,
} from '@vivid-beacon/core';
import { namesIn, parseExpression, type Node } from '@vivid-beacon/core/src/expressions';
import { checkUnits } from '@vivid-beacon/core/src/derive/checkUnits';
import { toChosenUnit } from '@vivid-beacon/core/src/derive/derivedMetric';
import { unitOfDifference, type Unit } from '@vivid-beacon/core/src/units/unit';
import { findAsset } from '../assets/sql';
import { listFactors, type FactorRow } from '../metrics/derivedSql';
import { metricsOfChildren, type MetricRow } from '../metrics/sql';
import type { ReadContext } from './readContext';

/** What a name stands for, looked up. */
export type Bound =
  | {
      readonly kind: 'metrics';
      readonly rows: readonly MetricRow[];
      readonly summary: Summary;
      readonly unit: string;
    }
  | { readonly kind: 'constant'; readonly value: number; readonly unit: string }
  | { readonly kind: 'factor'; readonly factor: FactorRow; readonly unit: string };

/** A definition with everything it names looked up and its units checked. */
export interface BoundExpression {
  readonly node: Node;
  readonly names: ReadonlyMap<string, Bound>;
  readonly unit: Unit;
  /** What brings results into the chosen unit: value × factor + offset. */
  readonly factor: number;
  readonly offset: number;
  readonly way: DerivedWay;
}

/** Looks up what an expression names and checks its units. @throws {BeaconError} naming what is missing or does not go together. */
export async function bindExpression(
  context: ReadContext,
  definition: DerivedDefinition,
  chosenUnit: string,
): Promise<BoundExpression> {
  const node = parseExpression(definition.expression);
  const names = new Map<string, Bound>();
  for (const name of namesIn(node)) {
    const binding = definition.bindings[name];
    if (!binding || !Object.hasOwn(definition.bindings, name)) {
      const known = Object.keys(definition.bindings);
      throw new BeaconError(
        'BAD_INPUT',
        `"${name}" does not stand for anything yet. ${known.length > 0 ? `There are ${known.join(', ')}.` : 'Choose a metric for it.'}`,
        'expression',
      );
    }
    names.set(name, await bind(context, name, binding, definition.way));
  }
  const checked = checkUnits(node, (name) => names.get(name)!.unit);
  const { unit } = checked;
  return { node: checked.node, names, unit, ...toChosenUnit(checked, chosenUnit), way: definition.way };
}

async function bind(context: ReadContext, name: string, binding: Binding, way: DerivedWay): Promise<Bound> {
  switch (binding.kind) {
    case 'metric': {
      const rows = await context.reads.metrics(context.db, [binding.metricId]);
      return bound(rows, binding.summary, way);
    }
    case 'children': {
      const rows = await metricsOfChildren(context.db, binding.assetId, binding.metricName);
      if (rows.length === 0) {
        throw new BeaconError(
          'BAD_INPUT',
          `No asset below has a metric named "${binding.metricName}" (for "${name}").`,
          'bindings',
        );
      }
      const odd = rows.find(({ unit, kind }) => unit !== rows[0].unit || kind !== rows[0].kind);
      if (odd) {
        throw new BeaconError(
          'BAD_INPUT',
          `${odd.name} of ${odd.assetName} is in ${odd.unit} (${odd.kind}), of ${rows[0].assetName} in ${rows[0].unit} (${rows[0].kind}); they cannot be added.`,
          'bindings',
        );
      }
      return bound(rows, binding.summary, way);
    }
    case 'attribute': {
      const asset = await findAsset(context.db, binding.assetId);
      const value = asset && attributeOf(asset.attributes, binding.attribute);
      if (!asset || typeof value !== 'number') {
        throw new BeaconError(
          'BAD_INPUT',
          `${asset?.name ?? 'This asset'} has no number under the attribute "${binding.attribute}" (for "${name}").`,
          'bindings',
        );
      }
      return { kind: 'constant', value, unit: /[([]([^()[\]]*)[)\]]\s*$/.exec(binding.attribute)?.[1] ?? '' };
    }
    case 'factor': {
      const factor = (await listFactors(context.db)).find(({ id }) => id === binding.factorId);
      if (!factor) {
        throw new BeaconError('BAD_INPUT', `The equivalence factor of "${name}" is gone.`, 'bindings');
      }
      return { kind: 'factor', factor, unit: factor.unit };
    }
  }
}

function bound(rows: readonly MetricRow[], chosen: Summary | null, way: DerivedWay): Bound {
  const { kind, unit } = rows[0];
  const summary = chosen ?? SUMMARIES_OF_KIND[kind][0];
  if (way === 'totals' && !SUMMARIES_OF_KIND[kind].includes(summary)) {
    throw new BeaconError(
      'BAD_INPUT',
      `${rows[0].name} is of kind ${kind}; its ${summary} makes no sense.`,
      'bindings',
    );
  }
  return { kind: 'metrics', rows, summary, unit: way === 'totals' ? unitInTotals(summary, unit) : unit };
}

function unitInTotals(summary: Summary, unit: string): string {
  if (summary === 'share') return '%';
  if (summary === 'duration') return 'h';
  if (summary === 'count') return '';
  return summary === 'sd' ? unitOfDifference(unit) : unit;
}
