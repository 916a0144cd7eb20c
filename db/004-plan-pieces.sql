-- Large pieces of plans, kept once however many revisions hold them: runs of strokes, imported masks.
create table plan_piece (
  hash text primary key,                -- SHA-256 of the body, hexadecimal
  body text not null,
  created_at timestamptz not null default now()
);
