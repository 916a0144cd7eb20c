-- Work done by worker processes, of any kind; one life cycle for all of it.
create table job (
  id uuid primary key,
  kind text not null,
  state text not null default 'waiting' check (state in ('waiting', 'running', 'done', 'failed', 'cancelled')),
  progress real not null default 0,
  message text,                          -- why it failed, or waits to be tried again
  attempts smallint not null default 0,
  lease uuid,                            -- the run that alone may report
  lease_until timestamptz,
  not_before timestamptz not null default now(),
  created_at timestamptz not null default now(),
  finished_at timestamptz
);
create index on job (created_at) where state in ('waiting', 'running');

-- What ran is run anew: its worker ended with the old queue.
insert into job (id, kind, state, progress, message, created_at, finished_at)
select id, 'export', case state when 'running' then 'waiting' else state end, progress, message, created_at, finished_at from export;

alter table export add foreign key (id) references job;
alter table export drop column state, drop column progress, drop column message, drop column touched_at, drop column finished_at;
drop schema if exists pgboss cascade;
