-- Names as people order them: 2 before 10, in any script, capitals beside small letters.
create collation by_name (provider = icu, locale = 'und-u-kn-true');
create index on picture (created_at desc, id) where deleted_at is null;
