-- 0009 derived: metrics computed from others, equivalence factors, reference series by period.
-- compatible: yes
create table derived_metric (
  metric_id  bigint primary key references metric (id) on delete cascade,
  expression text not null,
  bindings   jsonb not null,                -- name in the expression -> what it stands for
  way        text not null check (way in ('totals', 'samples')),
  updated_at timestamptz not null
);

-- Turns a quantity into another, for example kg of CO2 per kWh; may change from year to year.
create table equivalence_factor (
  id     bigint generated always as identity primary key,
  name   text not null,
  unit   text not null,
  source text not null default ''
);
create unique index equivalence_factor_name_idx on equivalence_factor (lower(name));
create table equivalence_value (
  factor_id bigint not null references equivalence_factor (id) on delete cascade,
  from_date date not null,
  value     double precision not null,
  primary key (factor_id, from_date)
);

-- Reference series: one value a local day, week, month, quarter or year of the asset's zone.
alter table metric add column period text check (period in ('day', 'week', 'month', 'quarter', 'year', 'financialYear'));
create table reference_value (
  metric_id  bigint not null references metric (id) on delete cascade,
  start_date date not null,                 -- local first day of the period
  value      double precision not null,
  primary key (metric_id, start_date)
);
