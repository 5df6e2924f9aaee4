-- Up Migration

-- What a fold is asked most often, beside it: a device opens only the folds that it needs. Folds of the rules before have
-- none; they are made anew when somebody asks.
alter table part_fold add column brief text not null default '';
