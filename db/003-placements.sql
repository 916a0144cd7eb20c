-- Placements saved to start from again, on any picture.
create table placement (
  id uuid primary key,
  name text not null,
  strands jsonb not null,
  created_at timestamptz not null default now(),
  deleted_at timestamptz
);
