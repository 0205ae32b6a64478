import { formatValue } from '@vivid-beacon/core';
import {
  computedMaking,
  type ReadoutValue,
  type TableCell,
  type TableData,
} from '@vivid-beacon/core/src/boards';
import { Fact } from '../components/Fact';
import { Row } from '../components/Row';
import { Tray } from '../components/Tray';
import { Words } from '../components/Words';

/** A cell of a computed column, with the row it lies in. */
export interface MadeCell {
  readonly name: string;
  readonly cells: readonly TableCell[];
  readonly at: number;
}

interface ComputedTrayProps extends MadeCell {
  readonly data: TableData;
  /** Opens how one of its values was made. */
  readonly onOpen: (value: ReadoutValue) => void;
  readonly onClose: () => void;
}

/** How a cell was worked out of the others in its row; each of those opens how it was made itself. */
export function ComputedTray({ data, name, cells, at, onOpen, onClose }: ComputedTrayProps) {
  const making = computedMaking(data, cells, at);
  if (!making) return null;
  const { unit, decimals } = data.heads[at];
  const { value } = cells[at];
  return (
    <Tray title={`How "${name}, ${data.heads[at].name}" was worked out`} open onClose={onClose}>
      <Fact name="Value" text={value === null ? 'none' : formatValue(value, unit, decimals)} />
      {value !== null && <Fact name="Unrounded" text={`${String(value).replace('-', '\u2212')} ${unit}`} />}
      <Fact name="Formula" text={making.expression} />
      <Words as="sectionHead" heading={2}>
        Values in it
      </Words>
      {making.terms.map(({ letter, head, cell }) => (
        <Row
          key={letter}
          title={`${letter} = ${formatValue(cell.value, head.unit, head.decimals)}`}
          second={head.name}
          onPress={cell.of ? () => onOpen(cell.of!) : undefined}
        />
      ))}
    </Tray>
  );
}
