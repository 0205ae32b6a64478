import type { StretchRemark } from '@vivid-beacon/core';
import { useAddStretchRemark, useRemoveRemark } from '../../api/dataChanges';
import { IconButton } from '../../components/IconButton';
import { RemoveIcon } from '../../components/icons';
import { Row } from '../../components/Row';
import { Words } from '../../components/Words';
import { useUndoStore } from '../../stores/undoStore';
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
  const add = useAddStretchRemark();
  const { give } = useUndoStore((state) => state.actions);
  const removeIt = ({ id, ...remark }: StretchRemark): void =>
    void remove
      .mutateAsync(id)
      .then(() => {
        const { assetId, start, end, kind, text } = remark;
        give({
          words: `The remark "${text}" removed`,
          undo: () => add.mutateAsync({ assetId, start, end, kind, text }),
        });
      })
      .catch(() => undefined);
  if (remarks.length === 0) {
    return (
      <Words as="body" colour={palette.ink2}>
        No remarks in this window.
      </Words>
    );
  }
  return (
    <>
      {remarks.map((remark, i) => (
        <Row
          key={remark.id}
          title={`${KIND_WORDS[remark.kind]}: ${remark.text}`}
          second={`${siteMoment(remark.start, zone)} to ${siteMoment(remark.end, zone)}, ${remark.author}`}
          right={
            mayRemove ? (
              <IconButton
                icon={RemoveIcon}
                name={`Remove the remark "${remark.text}"`}
                onPress={() => removeIt(remark)}
              />
            ) : undefined
          }
          last={i === remarks.length - 1}
        />
      ))}
    </>
  );
}
