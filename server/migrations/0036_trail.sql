-- 0036 trail: who changed what, when, from where, what it was before and after. Append-only, chained by hash.
-- compatible: yes

-- Rows are written by the functions below only, which run with the rights of the owner: the role that the
-- application works with can read this table and nothing more (src/db/migrate.ts).
create table trail (
  seq           bigint primary key,          -- without gaps
  at            timestamptz not null,
  person_id     bigint,                      -- null = the server itself; no reference, so that it stays as it was
  person_name   text,
  address       text,                        -- network address the request came from
  request       text,                        -- "PUT /api/assets/:id"
  action        text not null,               -- added, changed, removed; signedIn, refused …
  subject       text not null,               -- the table, or "session"
  subject_id    text,
  name          text,                        -- what it was called then
  plant_id      bigint,
  before        jsonb,                       -- of a change only what differs
  after         jsonb,
  previous_hash bytea not null unique,       -- unique: the chain never forks
  hash          bytea not null
);
create index trail_at_idx on trail (at);
create index trail_subject_idx on trail (subject, subject_id, seq);
create index trail_person_idx on trail (person_id, seq);

-- Where the chain begins, once its oldest rows were past their time.
create table trail_start (
  only_one boolean primary key default true check (only_one),
  seq      bigint not null,                  -- of the last row that was cut off
  hash     bytea not null
);
insert into trail_start values (true, 0, sha256('vivid beacon'::bytea));

-- The hash of a row: SHA-256 of the previous hash, followed by the row without its hashes as JSON with sorted keys.
create function trail_hash(entry trail) returns bytea language sql stable as $$
  select sha256($1.previous_hash || convert_to((jsonb_build_object(
    'seq', $1.seq, 'at', (extract(epoch from $1.at) * 1000000)::bigint, 'personId', $1.person_id, 'personName', $1.person_name,
    'address', $1.address, 'request', $1.request, 'action', $1.action, 'subject', $1.subject,
    'subjectId', $1.subject_id, 'name', $1.name, 'plantId', $1.plant_id, 'before', $1.before, 'after', $1.after))::text, 'UTF8'))
$$;

-- Adds a row. The origin is set by the server for each request: { person, name, address, request, at }.
create function trail_add(
  action text, subject text, subject_id text, name text, plant_id bigint, before jsonb, after jsonb
) returns void language plpgsql security definer set search_path = public, pg_temp as $$
declare
  origin jsonb := nullif(current_setting('beacon.origin', true), '')::jsonb;
  added trail;
begin
  -- Whoever adds a row holds this until the transaction ends. Rows are added at its very end (deferred triggers), when
  -- all other locks are held, so that nobody waits for one who waits for them.
  perform pg_advisory_xact_lock(7233190242);
  select coalesce(last.seq, start.seq) + 1, coalesce(last.hash, start.hash) into added.seq, added.previous_hash
  from trail_start start left join lateral (select t.seq, t.hash from trail t order by t.seq desc limit 1) last on true;
  added.at := coalesce(to_timestamp((origin ->> 'at')::float8 / 1000), clock_timestamp());
  added.person_id := (origin ->> 'person')::bigint;
  added.person_name := origin ->> 'name';
  added.address := origin ->> 'address';
  added.request := origin ->> 'request';
  added.action := action;
  added.subject := subject;
  added.subject_id := subject_id;
  added.name := left(name, 300);
  added.plant_id := plant_id;
  added.before := before;
  added.after := after;
  added.hash := trail_hash(added);
  insert into trail select added.*;
end $$;

-- The plant of a row of any table, by what it hangs on.
create function trail_plant(subject text, entry jsonb) returns bigint language plpgsql stable as $$
declare
  found_asset bigint := (entry ->> 'asset_id')::bigint;
begin
  if entry ? 'plant_id' then return (entry ->> 'plant_id')::bigint; end if;
  if subject = 'asset' then found_asset := (entry ->> 'id')::bigint; end if;
  if found_asset is null and entry ->> 'metric_id' is not null then
    select metric.asset_id into found_asset from metric where id = (entry ->> 'metric_id')::bigint;
  end if;
  if found_asset is null and entry ->> 'indicator_id' is not null then
    select indicator.asset_id into found_asset from indicator where id = (entry ->> 'indicator_id')::bigint;
  end if;
  if found_asset is null and entry ->> 'flag_id' is not null then
    select flag.asset_id into found_asset from flag where id = (entry ->> 'flag_id')::bigint;
  end if;
  if found_asset is null and entry ->> 'job_id' is not null then
    select job_entry.asset_id into found_asset from job_entry where id = (entry ->> 'job_id')::bigint;
  end if;
  if found_asset is null and entry ->> 'alarm_id' is not null then
    select metric.asset_id into found_asset from alarm join metric on metric.id = alarm.metric_id
    where alarm.id = (entry ->> 'alarm_id')::bigint;
  end if;
  return (select place.plant_id from asset_place place where place.asset_id = found_asset);
end $$;

-- Trigger: arguments are the column of the id, secret columns (written as "(secret)"), and columns that the server keeps
-- for itself; lists with commas between them.
create function trail_row() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
declare
  secret text[] := string_to_array(tg_argv[1], ',');
  own text[] := string_to_array(tg_argv[2], ',');
  was jsonb := case when tg_op <> 'INSERT' then to_jsonb(old) - own end;
  now jsonb := case when tg_op <> 'DELETE' then to_jsonb(new) - own end;
  told jsonb;
  hidden text;
begin
  told := coalesce(now, was);
  if tg_op = 'UPDATE' then
    select coalesce(jsonb_object_agg(key, value) filter (where now -> key is distinct from value), '{}'),
           coalesce(jsonb_object_agg(key, now -> key) filter (where now -> key is distinct from value), '{}')
    into was, now from jsonb_each(was);
    if now = '{}' then return null; end if;
  end if;
  foreach hidden in array secret loop
    if was -> hidden <> 'null' then was := was || jsonb_build_object(hidden, '(secret)'); end if;
    if now -> hidden <> 'null' then now := now || jsonb_build_object(hidden, '(secret)'); end if;
  end loop;
  perform trail_add(
    case tg_op when 'INSERT' then 'added' when 'UPDATE' then 'changed' else 'removed' end,
    tg_table_name, told ->> tg_argv[0],
    coalesce(told ->> 'name', told ->> 'title', told ->> 'text', told ->> 'reason', told ->> 'file_name', told ->> 'number',
             told ->> 'status'),
    trail_plant(tg_table_name, told), was, now);
  return null;
end $$;

-- Rows older than the time that is set, and 90 days at least by the clock of the database, are cut off from the beginning.
-- @returns how many.
create function trail_cut(keep_days int, now timestamptz) returns bigint
language plpgsql security definer set search_path = public, pg_temp as $$
declare
  cut bigint;
  last trail;
  kept_from timestamptz := least(now, clock_timestamp()) - make_interval(days => greatest(keep_days, 90));
begin
  perform pg_advisory_xact_lock(7233190242);
  select * into last from trail
  where seq < coalesce((select min(seq) from trail where at >= kept_from), 9223372036854775807) order by seq desc limit 1;
  if last.seq is null then return 0; end if;
  perform set_config('beacon.trail_cut', 'on', true);
  delete from trail where seq <= last.seq;
  get diagnostics cut = row_count;
  perform set_config('beacon.trail_cut', '', true);
  update trail_start set seq = last.seq, hash = last.hash;
  perform trail_add('cut', 'trail', null, null, null, null, jsonb_build_object('rows', cut, 'upTo', last.at));
  return cut;
end $$;

-- Nobody changes or deletes rows, not even the owner by accident.
create function trail_is_append_only() returns trigger language plpgsql as $$
begin
  if tg_op = 'DELETE' and current_setting('beacon.trail_cut', true) = 'on' then return old; end if;
  raise exception 'The trail is append-only.';
end $$;
create trigger append_only before update or delete on trail
  for each row execute function trail_is_append_only();
create trigger never_emptied before truncate on trail
  for each statement execute function trail_is_append_only();

do $$
declare
  watched record;
begin
  for watched in select * from (values
    ('asset', 'id', '', 'search'),
    ('metric', 'id', '', 'rollup_version,ucum'),
    ('derived_metric', 'metric_id', '', 'updated_at'),
    ('reference_value', 'metric_id', '', ''),
    ('equivalence_factor', 'id', '', ''),
    ('equivalence_value', 'factor_id', '', ''),
    ('working_calendar', 'plant_id', '', 'updated_at,updated_by'),
    ('alarm_rule', 'id', '', ''),
    ('alarm_rule_event', 'rule_id', '', ''),
    ('indicator', 'id', '', ''),
    ('indicator_version', 'indicator_id', '', ''),
    ('indicator_target', 'indicator_id', '', ''),
    ('board', 'id', '', 'updated_at'),
    ('flag', 'id', '', 'late_told_for'),
    ('flag_event', 'flag_id', '', ''),
    ('flag_cause', 'id', '', ''),
    ('remark', 'id', '', ''),
    ('handover_note', 'id', '', ''),
    ('stop_entry', 'id', '', ''),
    ('job_entry', 'id', '', ''),
    ('job_status', 'job_id', '', ''),
    ('job_status_kind', 'asset_id', '', ''),
    ('intake', 'id', '', 'notes,layout'),
    ('intake_mapping', 'shape', '', 'used_at'),
    ('person', 'id', 'password_hash', 'first_steps_away,rights_changed_at'),
    ('person_site', 'person_id', '', ''),
    ('invitation', 'person_id', 'token_hash', ''),
    ('notice_wish', 'person_id', '', ''),
    ('push_token', 'id', 'token_hash', 'last_used_at'),
    ('setting', 'name', '', '')
  ) as list (name, id, secret, own) loop
    execute format(
      'create constraint trigger trail after insert or update or delete on %I deferrable initially deferred
       for each row execute function trail_row(%L, %L, %L)', watched.name, watched.id, watched.secret, watched.own);
  end loop;
end $$;
-- Series that come without a metric are counted all the time; only where they are sent to is a change.
create constraint trigger trail after update on heard_series deferrable initially deferred
  for each row when (old.metric_id is distinct from new.metric_id)
  execute function trail_row('token_id', '', 'heard,last_heard,last_v');
-- What people do with alarms; that they were raised stands in their own history.
create constraint trigger trail after insert on alarm_event deferrable initially deferred
  for each row when (new.person_id is not null) execute function trail_row('alarm_id', '', '');
