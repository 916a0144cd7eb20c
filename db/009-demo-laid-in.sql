-- When the demo series was laid in, whole; a set-up that was cut off in the middle goes on with it.
create table demo_series (
  laid_in_at timestamptz not null default now()
);
insert into demo_series select where exists (select from picture);
