-- Mixes saved to start from again, on any picture.
create table saved_mix (
  id uuid primary key,
  name text not null,
  mix jsonb not null,
  created_at timestamptz not null default now(),
  deleted_at timestamptz
);
