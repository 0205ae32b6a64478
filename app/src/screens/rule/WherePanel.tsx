import { hasAttributes, type Metric, type RuleInput } from '@vivid-beacon/core';
import { useAssetsById, useSameMetrics } from '../../api/catalogue';
import { AttributeConditions } from '../../components/scope/AttributeConditions';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface WherePanelProps {
  readonly metric: Metric;
  readonly rule: Pick<RuleInput, 'under' | 'attributes'>;
  readonly onChange: (part: Pick<RuleInput, 'under' | 'attributes'>) => void;
}

const ONE = 'one';
/** A rule watches no more. */
const MAX_WATCHED = 500;

/** Only this metric, or the same one of every asset below one of those above it, with given attributes if need be. */
export function WherePanel({ metric, rule, onChange }: WherePanelProps) {
  const { under, attributes } = rule;
  const palette = usePalette();
  const own = useAssetsById([metric.assetId]).byId.get(metric.assetId);
  const above = useAssetsById(own?.path ?? []).byId;
  // From the asset itself up to its plant.
  const upwards = [...(own?.path ?? [])].reverse();
  const counts = useSameMetrics(metric, upwards, 0);
  const wider = upwards.flatMap((id, i) => {
    const count = counts[i]?.total ?? 0;
    return count > 1 || id === under ? [{ id, name: above.get(id)?.name ?? '', count }] : [];
  });
  const [below] = useSameMetrics(metric, under !== null && attributes.length > 0 ? [under] : [], MAX_WATCHED);
  const facts = useAssetsById((below?.items ?? []).map(({ assetId }) => assetId)).byId;
  const meant = (below?.items ?? []).filter(({ assetId }) => {
    const asset = facts.get(assetId);
    return asset !== undefined && hasAttributes(asset, attributes);
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
            onChange={(next) => onChange({ under, attributes: next })}
          />
          {attributes.length > 0 && (
            <Words as="second" colour={palette.ink2}>
              {meant.length === 0
                ? 'No asset has these attributes now.'
                : `Now ${meant.map(({ assetName }) => assetName).join(', ')}. Assets are added as they gain these attributes and dropped as they lose them.`}
            </Words>
          )}
        </>
      )}
    </>
  );
}
