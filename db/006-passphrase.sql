-- The one passphrase, where others can reach the machine, and who has said it.
create table passphrase (
  one boolean primary key default true check (one),
  salt bytea not null,
  hash bytea not null,
  set_at timestamptz not null default now()
);

create table session (
  token bytea primary key,               -- SHA-256 of what the browser holds
  created_at timestamptz not null default now()
);
