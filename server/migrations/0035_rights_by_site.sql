-- 0035 rights by site: a role everywhere, at named plants, or both; invitations; sessions of a person; push tokens of a site.
-- compatible: yes
alter table person
  -- The role at every plant, also those to come; null = only at the plants in person_site.
  add column role_everywhere text,
  -- They were invited and have not chosen a password yet.
  alter column password_hash drop not null,
  add column disabled_at timestamptz,
  -- Sessions from before get a new id with their next request.
  add column rights_changed_at timestamptz,
  add constraint person_role_everywhere_known
    check (role_everywhere in ('viewer', 'operator', 'analyst', 'administrator'));
update person set role_everywhere = role;
comment on column person.role is 'The highest role they have anywhere: role_everywhere and person_site decide where.';

create table person_site (
  person_id bigint not null references person (id) on delete cascade,
  plant_id  bigint not null references asset (id) on delete cascade,
  role      text not null,
  primary key (person_id, plant_id),
  constraint person_site_role_known check (role in ('viewer', 'operator', 'analyst', 'administrator'))
);
create index person_site_plant_idx on person_site (plant_id);

-- Links that let somebody choose a password: an invitation, or a reset by an administrator.
create table invitation (
  token_hash bytea primary key,             -- SHA-256 of a token of 256 random bits
  person_id  bigint not null references person (id) on delete cascade,
  created_by bigint not null references person (id),
  created_at timestamptz not null,
  ends_at    timestamptz not null,
  used_at    timestamptz
);
create index invitation_person_idx on invitation (person_id);

-- "Sign out everywhere" finds the sessions of a person.
create index session_person_idx on session ((sess ->> 'personId'));

alter table push_token
  add column plant_id   bigint references asset (id),  -- writes there only; null = everywhere
  add column metric_ids bigint[],                      -- writes these only; null = all of its plants
  add column ends_at    timestamptz;                   -- null = until it is revoked
