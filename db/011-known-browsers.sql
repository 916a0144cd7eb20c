-- What signs the cookie by which a browser is known again that signed in before: it opens nothing, but its guesses are counted apart.
create table browser_key (
  one boolean primary key default true check (one),
  key bytea not null
);
