import { useRouter } from 'expo-router';
import { formatMoment, type Board, type BoardVersion } from '@vivid-beacon/core';
import { boardChangesWords } from '@vivid-beacon/core/src/boards';
import { useBoardVersions } from '../../../api/boards';
import { LongList } from '../../../components/LongList';
import { Row } from '../../../components/Row';
import { Section } from '../../../components/Section';
import { useNow } from '../../../hooks/useNow';
import { deviceZone } from '../../deviceZone';

/** Who saved what, the newest first; each is looked at before anybody goes back to it. */
export function BoardVersions({ board, onDone }: { readonly board: Board; readonly onDone: () => void }) {
  const router = useRouter();
  const now = useNow();
  const versions = useBoardVersions(board.id);
  return (
    <Section title="Versions" closed={false}>
      <LongList pages={versions} reading="Loading versions" empty="None is kept.">
        {(version: BoardVersion & { readonly id: string }, last) => (
          <Row
            key={version.id}
            title={`${formatMoment(version.savedAt, deviceZone(), now)}, ${version.savedBy ?? 'before versions were kept'}`}
            second={versionWords(version, board.revision)}
            last={last}
            onPress={
              version.revision === board.revision
                ? undefined
                : () => {
                    onDone();
                    router.setParams({ version: version.id });
                  }
            }
          />
        )}
      </LongList>
    </Section>
  );
}

function versionWords({ revision, changes, restoredFrom }: BoardVersion, newest: number): string {
  const parts = [
    revision === newest && 'as it is now',
    restoredFrom !== null && `back to version ${restoredFrom}`,
    changes ? boardChangesWords(changes) : 'the oldest that is kept',
  ];
  return parts.filter(Boolean).join(', ');
}
