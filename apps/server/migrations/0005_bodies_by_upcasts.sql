-- Shapes of documents are brought up by the steps that files, drafts and waiting saves go through as well; this says which
-- steps the bodies of this database have had, so that they are gone through once. It belongs to the owner alone.
create table body_upcast (
  kind text not null,
  upcast text not null,
  had_at timestamptz not null default now(),
  primary key (kind, upcast)
);
