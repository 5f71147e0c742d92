ALTER TABLE "batch" ADD COLUMN "revision" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "bag" ADD COLUMN "beads" integer;--> statement-breakpoint
-- Whatever was worked out from a batch's lines and bags holds as long as its revision is the same. Who changes them has locked the batch before.
create function raise_revision() returns trigger language plpgsql as $$
begin
  update batch set revision = revision + 1 where id in (select batch_id from changed);
  return null;
end $$;
--> statement-breakpoint
create trigger bag_revises_insert after insert on bag referencing new table as changed for each statement execute function raise_revision();
--> statement-breakpoint
create trigger bag_revises_update after update on bag referencing new table as changed for each statement execute function raise_revision();
--> statement-breakpoint
create trigger bag_revises_delete after delete on bag referencing old table as changed for each statement execute function raise_revision();
--> statement-breakpoint
create trigger batch_line_revises_insert after insert on batch_line referencing new table as changed for each statement execute function raise_revision();
--> statement-breakpoint
create trigger batch_line_revises_update after update on batch_line referencing new table as changed for each statement execute function raise_revision();
--> statement-breakpoint
create trigger batch_line_revises_delete after delete on batch_line referencing old table as changed for each statement execute function raise_revision();
--> statement-breakpoint
-- A revision by itself is no news for pages: the lines and bags have told theirs.
drop trigger batch_tells on batch;
--> statement-breakpoint
create trigger batch_tells after insert or update of name, due_on, state, priority, kept on batch for each statement execute function tell_changes('batches');
