import { formatNumber } from '@vivid-beacon/core';
import type { ReadoutValue } from '@vivid-beacon/core/src/boards';
import { Fact } from '../components/Fact';
import { NumberButton } from '../components/NumberButton';
import { Row } from '../components/Row';
import { Tray } from '../components/Tray';
import { Words } from '../components/Words';

interface RingTotalTrayProps {
  readonly title: string;
  readonly parts: readonly ReadoutValue[];
  readonly total: number;
  readonly decimals: number;
  readonly onOpen: (part: ReadoutValue) => void;
  readonly onClose: () => void;
}

const MAX_SHOWN = 60;
/** Rounds off binary noise beyond these digits. */
const DIGITS = 14;

/** Provenance of a ring's total: the sum of its parts, each with its own provenance. */
export function RingTotalTray({ title, parts, total, decimals, onOpen, onClose }: RingTotalTrayProps) {
  const known = parts.filter(({ value }) => value !== null).sort((a, b) => b.value! - a.value!);
  const missing = parts.filter(({ value }) => value === null);
  const { unit } = parts[0];
  const covered = Math.min(...known.map(({ coverage }) => coverage));
  return (
    <Tray title={`How the whole of "${title}" was made`} open onClose={onClose}>
      <Fact name="Value" text={`${formatNumber(total, decimals)} ${unit}`} />
      <Fact name="Unrounded" text={`${Number(total.toPrecision(DIGITS))} ${unit}`} />
      <Fact name="Formula" text={`The sum of ${known.length === 1 ? 'one part' : `${known.length} parts`}`} />
      <Fact
        name="Coverage"
        text={`at least ${formatNumber(covered * 100, 1)} % of the time that has passed in each part`}
      />
      <Fact
        name="Samples"
        text={`${formatNumber(
          known.reduce((sum, { samples }) => sum + samples, 0),
          0,
        )} used`}
      />
      {missing.length > 0 && (
        <Words as="second">{`Without data, so not in it: ${missing.map(({ name }) => name).join(', ')}`}</Words>
      )}
      <Words as="sectionHead" heading={2}>
        Its parts
      </Words>
      {known.slice(0, MAX_SHOWN).map((part) => (
        <Row
          key={part.key}
          title={part.name}
          second={`${formatNumber((part.value! / total) * 100, 1)} % of the whole`}
          right={
            <NumberButton
              text={formatNumber(part.value!, decimals)}
              unit={part.unit}
              name={`${part.name}. How it was made`}
              onPress={() => onOpen(part)}
            />
          }
        />
      ))}
      {known.length > MAX_SHOWN && <Words as="second">{`and ${known.length - MAX_SHOWN} more`}</Words>}
    </Tray>
  );
}
