import {
  COLUMN_PART_WORDS,
  COLUMN_PARTS,
  partEffect,
  type ColumnPart,
  type FoundColumn,
  type Recognised,
} from '@vivid-beacon/core/src/intakeFiles';
import { PickList } from '../../components/PickList';
import { Tray } from '../../components/Tray';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface PartTrayProps {
  readonly column: FoundColumn | null;
  readonly recognised: Recognised;
  readonly onChoose: (part: ColumnPart) => void;
  readonly onClose: () => void;
}

/** What a column is for, each choice with what its first filled cell would be. */
export function ColumnPartTray({ column, recognised, onChoose, onClose }: PartTrayProps) {
  const palette = usePalette();
  const example = column?.example ?? '';
  return (
    <Tray title={column?.heading ?? 'Column'} open={column !== null} onClose={onClose}>
      {column && (
        <>
          <Words as="body" colour={palette.ink2}>
            {example === '' ? 'The column is blank so far.' : `Its first filled cell is “${example}”.`}
          </Words>
          <PickList
            name="Part"
            searchFrom={99}
            options={COLUMN_PARTS.map((part) => ({
              value: part,
              label: COLUMN_PART_WORDS[part],
              detail:
                example === ''
                  ? undefined
                  : (partEffect(part, example, recognised.layout) ?? `“${example}” cannot be read so`),
            }))}
            chosen={column.part}
            onChoose={(part) => {
              onChoose(part);
              onClose();
            }}
          />
        </>
      )}
    </Tray>
  );
}
