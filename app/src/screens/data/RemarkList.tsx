import type { StretchRemark } from '@vivid-beacon/core';
import { useRemoveRemark } from '../../api/dataChanges';
import { IconButton } from '../../components/IconButton';
import { RemoveIcon } from '../../components/icons';
import { Row } from '../../components/Row';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { siteMoment } from '../siteMoment';

const KIND_WORDS = { reason: 'Reason', abnormal: 'Abnormal', note: 'Note' } as const;

interface RemarkListProps {
  readonly remarks: readonly StretchRemark[];
  readonly zone: string;
  readonly mayRemove: boolean;
}

/** Remarks on the asset in the window, in order of time. */
export function RemarkList({ remarks, zone, mayRemove }: RemarkListProps) {
  const palette = usePalette();
  const remove = useRemoveRemark();
  if (remarks.length === 0) {
    return (
      <Words as="body" colour={palette.ink2}>
        No remarks in this window.
      </Words>
    );
  }
  return (
    <>
      {remarks.map(({ id, start, end, kind, text, author }, i) => (
        <Row
          key={id}
          title={`${KIND_WORDS[kind]}: ${text}`}
          second={`${siteMoment(start, zone)} to ${siteMoment(end, zone)}, ${author}`}
          right={
            mayRemove ? (
              <IconButton
                icon={RemoveIcon}
                name={`Remove the remark "${text}"`}
                onPress={() => remove.mutate(id)}
              />
            ) : undefined
          }
          last={i === remarks.length - 1}
        />
      ))}
    </>
  );
}
