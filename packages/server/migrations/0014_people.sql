CREATE TABLE "shop_secret" (
	"name" text PRIMARY KEY NOT NULL,
	"value" text NOT NULL
);
--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "disabled_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "seal" text DEFAULT gen_random_uuid()::text NOT NULL;--> statement-breakpoint
-- Whoever changes a role, a password or whether somebody may sign in, by whatever way, ends that person's sessions.
create function person_changes_seal() returns trigger language plpgsql as $$
begin
  new.seal := gen_random_uuid()::text;
  perform pg_notify('ended', 'person ' || old.id);
  return new;
end $$;
--> statement-breakpoint
create trigger person_changes_seal before update of role, password_hash, disabled_at on person for each row
  when (old.role is distinct from new.role or old.password_hash is distinct from new.password_hash or old.disabled_at is distinct from new.disabled_at)
  execute function person_changes_seal();
