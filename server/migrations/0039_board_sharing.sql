-- 0039 boards: shared with people, roles or a plant; labels, archive, favourites, versions.
-- compatible: yes
-- What an earlier server adds meanwhile is as boards were until now: everybody sees it, analysts change it.
alter table board
  -- With whom it is shared: core/src/board/sharing.ts.
  add column shares jsonb not null default
    '[{"to": "role", "role": "viewer", "plantId": null, "may": "see"},
      {"to": "role", "role": "analyst", "plantId": null, "may": "change"}]',
  -- The keys of those who may see and change it, made from owner and shares (boardKeys).
  add column seen_by     text[] not null default '{viewer,analyst}',
  add column changed_by  text[] not null default '{analyst}',
  add column labels      text[] not null default '{}',
  add column archived_at timestamptz;
update board set seen_by = array['person:' || owner_id, 'administrator@*'] || seen_by,
                 changed_by = array['person:' || owner_id, 'administrator@*'] || changed_by;
set constraints all immediate;
create index board_seen_by_idx on board using gin (seen_by);
-- What is made from other columns is not told twice.
drop trigger trail on board;
create constraint trigger trail after insert or update or delete on board deferrable initially deferred
  for each row execute function trail_row('id', '', 'updated_at,seen_by,changed_by');

create table board_favourite (
  person_id bigint not null references person (id) on delete cascade,
  board_id  bigint not null references board (id) on delete cascade,
  primary key (person_id, board_id)
);

create table board_version (
  board_id      bigint not null references board (id) on delete cascade,
  revision      integer not null,
  title         text not null,
  document      jsonb not null,
  saved_by      bigint references person (id),  -- null = saved before versions were kept
  begun_at      timestamptz not null,           -- its first save; one person's saves within ten minutes are one version
  saved_at      timestamptz not null,
  restored_from integer,                        -- the version that was gone back to
  primary key (board_id, revision)
);
insert into board_version (board_id, revision, title, document, begun_at, saved_at)
select id, revision, title, document, updated_at, updated_at from board;
