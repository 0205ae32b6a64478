import { hasAttributes, type Asset, type Metric } from '@vivid-beacon/core';
import type { RuleForm } from '../../api/changes';
import { AttributeConditions } from '../../components/scope/AttributeConditions';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface WherePanelProps {
  readonly metric: Metric;
  readonly metrics: readonly Metric[];
  readonly assets: readonly Asset[];
  readonly rule: Pick<RuleForm, 'under' | 'attributes'>;
  readonly onChange: (part: Pick<RuleForm, 'under' | 'attributes'>) => void;
}

const ONE = 'one';

/** Only this metric, or the same one of every asset below one of those above it, with given attributes if need be. */
export function WherePanel({ metric, metrics, assets, rule, onChange }: WherePanelProps) {
  const { under, attributes } = rule;
  const palette = usePalette();
  const byId = new Map(assets.map((asset) => [asset.id, asset]));
  const above: Asset[] = [];
  for (let at = byId.get(metric.assetId); at; at = at.parentId === null ? undefined : byId.get(at.parentId))
    above.push(at);
  const inside = (id: string, top: string): boolean => {
    for (let at = byId.get(id); at; at = at.parentId === null ? undefined : byId.get(at.parentId)) {
      if (at.id === top) return true;
    }
    return false;
  };
  const same = metrics.filter(
    ({ name, unit, kind, origin }) =>
      name.toLowerCase() === metric.name.toLowerCase() &&
      unit === metric.unit &&
      kind === metric.kind &&
      origin === 'samples',
  );
  const wider = above
    .map(({ id, name }) => ({ id, name, count: same.filter(({ assetId }) => inside(assetId, id)).length }))
    .filter(({ count, id }) => count > 1 || id === under);
  const meant = same.filter(({ assetId }) => {
    const asset = byId.get(assetId);
    return under !== null && inside(assetId, under) && asset && hasAttributes(asset, attributes);
  });
  return (
    <>
      <WordRow
        name="On which assets"
        options={[
          { value: ONE, label: `Only ${metric.assetName}` },
          ...wider.map(({ id, name, count }) => ({ value: id, label: `All ${count} in ${name}` })),
        ]}
        chosen={under ?? ONE}
        onChoose={(value) =>
          onChange(value === ONE ? { under: null, attributes: [] } : { under: value, attributes })
        }
      />
      {under !== null && (
        <>
          <AttributeConditions
            attributes={attributes}
            assets={assets.filter(({ id }) => same.some(({ assetId }) => assetId === id))}
            onChange={(next) => onChange({ under, attributes: next })}
          />
          {attributes.length > 0 && (
            <Words as="second" colour={palette.ink2}>
              {meant.length === 0
                ? 'No asset has these attributes now.'
                : `Now ${meant.map(({ assetName }) => assetName).join(', ')}. Assets that come to have them are taken in, those that lose them let go.`}
            </Words>
          )}
        </>
      )}
    </>
  );
}
