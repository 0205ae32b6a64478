import type { ReactNode } from 'react';
import { useRouter } from 'expo-router';
import { allows, type Role } from '@vivid-beacon/core';
import { mayEverywhere } from '../api/mayAct';
import { usePerson } from '../api/session';
import { Message } from '../components/Message';
import { Page } from '../components/Page';

interface RoleGateProps {
  readonly least: Role;
  /** Whether the role is needed at every plant. */
  readonly everywhere?: boolean;
  /** What the page does: "change alarm rules". */
  readonly to: string;
  readonly children: ReactNode;
}

/** A page that changes things, for those whose role may; the others are told so before they begin. */
export function RoleGate({ least, everywhere = false, to, children }: RoleGateProps) {
  const router = useRouter();
  const person = usePerson();
  const may = everywhere ? mayEverywhere(person, least) : person && allows(person.role, least);
  if (!person || may) return children;
  return (
    <Page title="Your role may look">
      <Message
        kind="empty"
        title={`To ${to} takes the role ${least}${everywhere ? ' at every plant' : ''}`}
        text={`You are signed in as ${person.name}, ${person.role}. Everything can be looked at; an administrator can change the role.`}
        action={{ label: 'Go to On watch', onPress: () => router.replace('/') }}
      />
    </Page>
  );
}
