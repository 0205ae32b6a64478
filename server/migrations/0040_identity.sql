-- 0040 identities: accounts of the sign-in provider (OpenID Connect) that belong to people here.
-- compatible: yes
create table person_identity (
  issuer    text not null,   -- of the provider
  subject   text not null,   -- the account there; never reused, unlike addresses
  person_id bigint not null references person (id) on delete cascade,
  linked_at timestamptz not null,
  primary key (issuer, subject),
  unique (person_id, issuer)
);
create constraint trigger trail after insert or update or delete on person_identity deferrable initially deferred
  for each row execute function trail_row('person_id', '', '');
