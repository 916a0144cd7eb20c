-- Bytes that must not be lost, in chunks so that they stream.
create table blob (
  id uuid primary key,
  bytes bigint not null default 0,
  sha256 text,                         -- null while it is still arriving
  created_at timestamptz not null default now()
);

create table blob_chunk (
  blob_id uuid not null references blob on delete cascade,
  number integer not null,
  data bytea not null,
  primary key (blob_id, number)
);
-- Pictures are compressed already.
alter table blob_chunk alter column data set storage external;

create table picture (
  id uuid primary key,
  name text not null,
  blob_id uuid not null references blob,
  width integer not null,
  height integer not null,
  facts jsonb not null,
  rating smallint not null default 0 check (rating between 0 and 5),
  created_at timestamptz not null default now(),
  deleted_at timestamptz
);

create table print (
  id uuid primary key,
  picture_id uuid not null references picture,
  name text not null,
  head uuid not null,                  -- the revision it stands at
  created_at timestamptz not null default now(),
  deleted_at timestamptz
);
create index on print (picture_id);

-- Append-only: undo moves the head, it never removes a revision.
create table revision (
  id uuid primary key,
  print_id uuid not null references print on delete cascade,
  number bigint generated always as identity,
  parent uuid references revision,
  label text not null,
  plan jsonb not null,
  created_at timestamptz not null default now()
);
create index on revision (print_id, number);
alter table print add foreign key (head) references revision deferrable initially deferred;

create table export (
  id uuid primary key,
  print_id uuid not null references print on delete cascade,
  revision_id uuid not null references revision,
  settings jsonb not null,
  file_name text not null,
  state text not null default 'waiting' check (state in ('waiting', 'running', 'done', 'failed', 'cancelled')),
  progress real not null default 0,
  message text,
  blob_id uuid references blob,
  created_at timestamptz not null default now(),
  touched_at timestamptz not null default now(),
  finished_at timestamptz
);
create index on export (print_id, created_at);
