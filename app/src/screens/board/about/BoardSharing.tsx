import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import {
  mayShare,
  shareKey,
  shareWords,
  type Board,
  type BoardShare,
  type BoardShared,
} from '@vivid-beacon/core';
import { useBoardShared, useShareBoard } from '../../../api/boards';
import { mayBuild } from '../../../api/mayAct';
import { usePerson } from '../../../api/session';
import { PersonPick } from '../../../assets/PersonPick';
import { Button } from '../../../components/Button';
import { QueryResult } from '../../../components/QueryResult';
import { Refusal } from '../../../components/Refusal';
import { Section } from '../../../components/Section';
import { WordRow } from '../../../components/WordRow';
import { Words } from '../../../components/Words';
import { usePalette } from '../../../theme/useTheme';
import { RoleShare } from './RoleShare';

const MAY = [
  { value: 'see', label: 'sees it' },
  { value: 'change', label: 'changes it' },
] as const;

/** With whom a board is shared. Each change holds at once. */
export function BoardSharing({ board }: { readonly board: Board }) {
  const shared = useBoardShared(board.id, true);
  return (
    <Section title="Shared with" closed={false}>
      <QueryResult query={shared} reading="Loading with whom">
        {(found) => <Shares board={board} shared={found} />}
      </QueryResult>
    </Section>
  );
}

type Adding = 'person' | 'role' | 'owner';

function Shares({ board, shared }: { readonly board: Board; readonly shared: BoardShared }) {
  const palette = usePalette();
  const person = usePerson();
  const share = useShareBoard(board.id);
  const [adding, setAdding] = useState<Adding | null>(null);
  const [heir, setHeir] = useState<{ readonly id: string; readonly name: string } | null>(null);
  const { ownerId, shares, names } = shared;
  const mine = person !== null && mayShare(ownerId, person);
  const set = (next: readonly BoardShare[]): void => share.mutate({ ownerId, shares: next });
  const add = (each: BoardShare): void => {
    setAdding(null);
    set([...shares.filter((was) => shareKey(was) !== shareKey(each)), each]);
  };
  const taken = shares.flatMap((each) => (each.to === 'person' ? [each.personId] : []));
  return (
    <View style={styles.shares}>
      {shares.length === 0 && <Words as="body">Nobody. Only its owner and administrators see it.</Words>}
      {shares.map((each) => {
        const words = shareWords(each, names);
        if (!mine) {
          return (
            <Words key={shareKey(each)} as="body">
              {`${words}: ${MAY.find(({ value }) => value === each.may)!.label}`}
            </Words>
          );
        }
        return (
          <View key={shareKey(each)} style={[styles.share, { borderTopColor: palette.line }]}>
            <Words as="bodyStrong">{words}</Words>
            <View style={styles.line}>
              <WordRow
                name={`What ${words} may do`}
                options={MAY}
                chosen={each.may}
                onChoose={(may) => set(shares.map((was) => (was === each ? { ...each, may } : was)))}
              />
              <Button
                variant="quiet"
                label="Take away"
                name={`Share no longer with ${words}`}
                onPress={() => set(shares.filter((was) => was !== each))}
              />
            </View>
          </View>
        );
      })}
      {!mine && (
        <Words as="second" colour={palette.ink2}>
          Its owner and administrators of every plant can change this.
        </Words>
      )}
      {mine && !mayBuild(person) && (
        <Words as="second" colour={palette.ink2}>
          To share a board takes the role analyst.
        </Words>
      )}
      {mine && mayBuild(person) && adding === null && (
        <View style={styles.buttons}>
          <Button label="A role" name="Share with a role or a plant" onPress={() => setAdding('role')} />
          <Button label="A person" name="Share with a person" onPress={() => setAdding('person')} />
          <Button
            variant="quiet"
            label="Another owner"
            name="Give it to another owner"
            onPress={() => setAdding('owner')}
          />
        </View>
      )}
      {adding === 'role' && <RoleShare onAdd={add} onCancel={() => setAdding(null)} />}
      {adding === 'person' && (
        <PersonPick
          chosen={null}
          without={[ownerId, ...taken]}
          onChoose={(personId) => add({ to: 'person', personId, may: 'see' })}
        />
      )}
      {adding === 'owner' && (
        <>
          <PersonPick
            chosen={heir?.id ?? null}
            without={[ownerId]}
            onChoose={(id, name) => setHeir({ id, name })}
          />
          {heir && (
            <>
              <Words as="second" colour={palette.ink2}>
                {`It is ${heir.name}’s then. You see it as long as it is shared with you.`}
              </Words>
              <Button
                label={`Give it to ${heir.name}`}
                disabled={share.isPending}
                onPress={() =>
                  share.mutate({ ownerId: heir.id, shares }, { onSuccess: () => setAdding(null) })
                }
              />
            </>
          )}
        </>
      )}
      {(adding === 'person' || adding === 'owner') && (
        <Button variant="quiet" label="Cancel" onPress={() => setAdding(null)} />
      )}
      <Refusal of={share} />
    </View>
  );
}

const styles = StyleSheet.create({
  shares: { gap: 8 },
  share: { borderTopWidth: 1, paddingTop: 8 },
  line: { flexDirection: 'row', alignItems: 'center', gap: 12, justifyContent: 'space-between' },
  buttons: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingTop: 4 },
});
