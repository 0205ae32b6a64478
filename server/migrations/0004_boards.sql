-- 0004 boards and indicators.
-- compatible: yes
create table board (
  id         bigint generated always as identity primary key,
  title      text not null,
  document   jsonb not null,
  revision   integer not null default 1,
  owner_id   bigint not null references person (id),
  updated_at timestamptz not null
);

create table indicator (
  id       bigint generated always as identity primary key,
  name     text not null,
  asset_id bigint not null references asset (id),
  measure  jsonb not null,
  span     jsonb not null,                  -- window
  band     jsonb not null,
  decimals smallint not null
);
create unique index indicator_name_idx on indicator (asset_id, lower(name));
