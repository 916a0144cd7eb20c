-- Every foreign key is found from its other end, else deleting what it refers to reads the whole table for each row.
create index on revision (parent);
create index on export (revision_id);
create index on export (blob_id);
create index on picture (blob_id);
create index on print (head);
