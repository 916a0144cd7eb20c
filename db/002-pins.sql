-- Places of the picture kept an eye on while printing: [{ x, y }], parts of its width and height.
alter table print add column pins jsonb not null default '[]';
