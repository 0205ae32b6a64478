-- 0007 samples_in_sql: raw samples in plain SQL.
-- compatible: yes
--
--   select * from metric_samples(42, '2026-11-01', '2026-11-02');
--   select t, v from metric_samples((select id from metric where key = 'quayside.ironer-2.bed-temperature'),
--                                   now() - interval '1 day', now()) where quality < 2;
--
-- It unpacks the days of core/src/series/dayCodec.ts one by one: right for looking something up or for an
-- export, slower than the server's own answers.

create function unpack_whole_numbers(bytes bytea, first_byte integer) returns bigint[]
language plpgsql immutable strict parallel safe as $$
declare
  out_numbers bigint[] := '{}';
  value bigint := 0;
  shift integer := 0;
  each integer;
begin
  for i in first_byte .. length(bytes) - 1 loop
    each := get_byte(bytes, i);
    value := value + ((each & 127)::bigint << shift);
    if each < 128 then
      out_numbers := out_numbers || value;
      value := 0;
      shift := 0;
    else
      shift := shift + 7;
    end if;
  end loop;
  return out_numbers;
end $$;

create function unpack_day_times(bytes bytea, n integer) returns integer[]
language plpgsql immutable strict parallel safe as $$
declare
  numbers bigint[] := unpack_whole_numbers(bytes, 1);
  times integer[];
  at bigint;
begin
  if get_byte(bytes, 0) <> 1 then raise exception 'unknown layout of times %', get_byte(bytes, 0); end if;
  if n = 0 then return '{}'; end if;
  at := numbers[1];
  times := array[at::integer];
  for pair in 1 .. (array_length(numbers, 1) - 1) / 2 loop
    for again in 1 .. numbers[pair * 2 + 1] loop
      at := at + numbers[pair * 2];
      times := times || at::integer;
    end loop;
  end loop;
  return times;
end $$;

-- IEEE 754 binary64 from its 64 bits. Powers of two are exact, and so is their product with 53 bits.
create function float8_of_bits(bits bigint) returns double precision
language plpgsql immutable strict parallel safe as $$
declare
  sign double precision := case when bits < 0 then -1 else 1 end;
  exponent integer := ((bits >> 52) & 2047)::integer;
  fraction bigint := bits & 4503599627370495;
begin
  if exponent = 2047 then
    return case when fraction <> 0 then 'NaN'::float8 else sign * 'Infinity'::float8 end;
  end if;
  if exponent = 0 then
    return sign * fraction::float8 * power(2::float8, -537) * power(2::float8, -537);
  end if;
  return sign * ((fraction + 4503599627370496)::float8 * power(2::float8, -52)) * power(2::float8, exponent - 1023);
end $$;

create function unpack_day_values(bytes bytea, n integer) returns double precision[]
language plpgsql immutable strict parallel safe as $$
declare
  layout integer := get_byte(bytes, 0);
  vals double precision[] := '{}';
  number bigint;
  scaled bigint := 0;
  scale double precision;
  bits bigint;
begin
  if layout = 64 then
    for i in 0 .. n - 1 loop
      bits := 0;
      for rank in reverse 7 .. 0 loop
        bits := (bits << 8) | get_byte(bytes, 1 + rank * n + i);
      end loop;
      vals := vals || float8_of_bits(bits);
    end loop;
    return vals;
  end if;
  if layout < 1 or layout > 10 then raise exception 'unknown layout of values %', layout; end if;
  scale := (10::numeric ^ (layout - 1))::double precision;
  foreach number in array unpack_whole_numbers(bytes, 1) loop
    scaled := scaled + case when number % 2 = 0 then number / 2 else -(number + 1) / 2 end;
    vals := vals || (scaled::double precision / scale);
  end loop;
  return vals;
end $$;

create function unpack_day_flags(bytes bytea, n integer) returns smallint[]
language plpgsql immutable parallel safe as $$
declare
  flags smallint[] := '{}';
  value integer := 0;
  shift integer := 0;
  at integer := 0;
  each integer;
begin
  if bytes is null then return array_fill(0::smallint, array[n]); end if;
  while at < length(bytes) loop
    each := get_byte(bytes, at);
    value := value + ((each & 127) << shift);
    at := at + 1;
    if each < 128 then
      flags := flags || array_fill(get_byte(bytes, at)::smallint, array[value]);
      at := at + 1;
      value := 0;
      shift := 0;
    else
      shift := shift + 7;
    end if;
  end loop;
  return flags;
end $$;

create function metric_samples(wanted_metric bigint, from_time timestamptz, to_time timestamptz)
returns table (t timestamptz, v double precision, quality smallint)
language sql stable parallel safe as $$
  select at, each.v, each.quality
  from sample_day,
       unnest(unpack_day_times(times, n), unpack_day_values(vals, n), unpack_day_flags(flags, n))
         as each (in_day, v, quality),
       lateral (select day::timestamp at time zone 'UTC' + in_day * interval '1 ms') as moment (at)
  where metric_id = wanted_metric
    and day >= (from_time at time zone 'UTC')::date and day <= (to_time at time zone 'UTC')::date
    and at >= from_time and at < to_time
  order by day, in_day
$$;
comment on function metric_samples is
  'Raw samples of a metric with from_time <= t < to_time; quality 0 good, 1 uncertain, 2 bad, 3 implausible';
