-- 0024 feed states: how each feed does is kept with its newest sample, so that thousands are counted at once; and what
-- assets and metrics are searched by.
-- compatible: yes

-- The lengths of core/src/feeds/feedHealth.ts; a test holds the two together.
alter table metric
  add column silent_after_ms bigint generated always as (greatest(max_gap_ms, 3 * interval_ms)) stored,
  add column flat_after_ms   bigint generated always as
    (case when kind = 'level' then greatest(60 * interval_ms, 7200000) end) stored;

alter table metric_latest
  -- What it is unless it is silent or its clock runs ahead, which follow from the time.
  add column state       text not null default 'reporting',
  add column ahead_until timestamptz,
  add constraint metric_latest_state_known check (state in ('reporting', 'flat', 'outOfRange'));
update metric_latest latest
  set state = case when latest.q = 3 then 'outOfRange'
                   when latest.t - latest.flat_since >= metric.flat_after_ms * interval '1 millisecond' then 'flat'
                   else 'reporting' end,
      ahead_until = case when latest.ahead_ms > 60000 then latest.ahead_at + interval '1 day' end
  from metric where metric.id = latest.metric_id;
-- What was removed is no feed any more.
delete from metric_latest using metric where metric.id = metric_latest.metric_id and metric.removed_at is not null;
create index metric_latest_state_idx on metric_latest (state, silent_at, ahead_until);
create index metric_sampled_idx on metric (id) where origin = 'samples' and removed_at is null;

-- Names, kind and facts of an asset, by the beginnings of words.
alter table asset add column search tsvector generated always as (
  setweight(to_tsvector('simple', name || ' ' || kind), 'A') ||
  setweight(jsonb_to_tsvector('simple', attributes, '["key", "string", "numeric"]'), 'B')) stored;
create index asset_search_idx on asset using gin (search);

-- Names and key of a metric, by any part of a word.
alter table metric_title add column search text not null default '';
update metric_title set search = metric_title.title || ' ' || metric.key from metric where metric.id = metric_title.metric_id;
drop index metric_title_search_idx;
create index metric_title_search_idx on metric_title using gin (search gin_trgm_ops);

create or replace function keep_metric_title() returns trigger language plpgsql as $$
begin
  delete from metric_title using changed where metric_id = changed.id and changed.removed_at is not null;
  insert into metric_title (metric_id, title, search)
  select changed.id, place.title || ' / ' || changed.name, place.title || ' / ' || changed.name || ' ' || changed.key
  from changed join asset_place place on place.asset_id = changed.asset_id
  where changed.removed_at is null
  on conflict (metric_id) do update set title = excluded.title, search = excluded.search
    where metric_title.search <> excluded.search;
  return null;
end $$;

create or replace function keep_titles_below() returns trigger language plpgsql as $$
begin
  update metric_title set title = moved.title || ' / ' || metric.name,
                          search = moved.title || ' / ' || metric.name || ' ' || metric.key
  from moved join metric on metric.asset_id = moved.asset_id
  where metric_title.metric_id = metric.id and metric_title.title <> moved.title || ' / ' || metric.name;
  return null;
end $$;
