import { useRouter } from 'expo-router';
import { formatNumber, SUMMARY_WORDS } from '@vivid-beacon/core';
import { Button } from '../components/Button';
import { Fact } from '../components/Fact';
import { ProvenanceTray } from '../components/ProvenanceTray';
import { Row } from '../components/Row';
import { Tray } from '../components/Tray';
import { Words } from '../components/Words';
import { useBoardLook } from '../boards/BoardLookContext';
import type { Part } from '../boards/parts';
import { useShown } from '../boards/useParts';
import type { Readout } from '@vivid-beacon/core';
import { useOpenPlace } from './useOpenPlace';

interface PartTrayProps {
  readonly title: string;
  readonly readout: Readout;
  readonly decimals: number;
  /** null = closed. */
  readonly part: Part | null;
  readonly onClose: () => void;
}

const MOST_SHOWN = 40;

/** How a value was made, what lies behind it, and the way on: focus its asset, open its samples. */
export function PartTray({ title, readout, decimals, part, onClose }: PartTrayProps) {
  const router = useRouter();
  const { metrics } = useShown(readout);
  const { focus, onFocus } = useBoardLook();
  const name = part ? (part.name && part.name !== title ? `${title}, ${part.name}` : title) : title;
  const openPlace = useOpenPlace(readout);
  const actions = part && (
    <>
      {openPlace && (
        <Button
          look="main"
          label={`Open ${readout.link}`}
          onPress={() => {
            onClose();
            openPlace();
          }}
        />
      )}
      {part.assetId && (
        <Button
          label={focus === part.assetId ? 'Release the focus' : 'Focus on this asset'}
          onPress={() => {
            onFocus(part.assetId!);
            onClose();
          }}
        />
      )}
      {part.metricIds.length === 1 && (
        <Button
          look="quiet"
          label="Open its samples"
          onPress={() => {
            onClose();
            router.push(`/data/metrics/${part.metricIds[0]}`);
          }}
        />
      )}
    </>
  );
  if (!part || part.reading) {
    return (
      part && (
        <ProvenanceTray title={name} reading={part.reading!} decimals={decimals} open onClose={onClose}>
          {actions}
        </ProvenanceTray>
      )
    );
  }
  const [measure] = readout.measures;
  const behind = part.metricIds.flatMap((id) => metrics.get(id) ?? []);
  return (
    <Tray title={`How "${name}" was made`} open onClose={onClose}>
      <Fact
        name="Value"
        text={part.value === null ? 'none' : `${formatNumber(part.value, decimals)} ${part.unit}`}
      />
      {part.value !== null && (
        <Fact name="Unrounded" text={`${String(part.value).replace('-', '\u2212')} ${part.unit}`} />
      )}
      <Fact
        name="Formula"
        text={`${SUMMARY_WORDS[measure.summary]} of ${behind.length === 1 ? behind[0].name : `${behind.length} metrics together`}${
          measure.per
            ? ` per ${SUMMARY_WORDS[measure.per.summary]} of ${metrics.get(measure.per.metricId)?.name ?? 'a removed metric'}, sums first`
            : ''
        }`}
      />
      <Fact name="Coverage" text={`${formatNumber(part.coverage * 100, 1)} % of the time that has passed`} />
      <Fact name="Samples" text={`${formatNumber(part.samples, 0)} used`} />
      {actions}
      <Words as="sectionHead" heading={2}>
        {behind.length === 1 ? 'Metric behind it' : `${behind.length} metrics behind it`}
      </Words>
      {part.within > 0 && (
        <Words as="second">
          {`${part.within} of the same name ${part.within === 1 ? 'lies' : 'lie'} below ${behind.length === 1 ? 'it' : 'them'} and ${part.within === 1 ? 'is' : 'are'} not counted again.`}
        </Words>
      )}
      {behind.slice(0, MOST_SHOWN).map((metric) => (
        <Row
          key={metric.id}
          title={`${metric.name}, ${metric.assetName}`}
          second={metric.plantName}
          onPress={() => {
            onClose();
            router.push(`/data/metrics/${metric.id}`);
          }}
        />
      ))}
      {behind.length > MOST_SHOWN && <Words as="second">{`and ${behind.length - MOST_SHOWN} more`}</Words>}
    </Tray>
  );
}
