CREATE TABLE "person_link" (
	"person_id" integer PRIMARY KEY NOT NULL,
	"token_digest" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	CONSTRAINT "person_link_token_digest_unique" UNIQUE("token_digest")
);
--> statement-breakpoint
drop trigger person_changes_seal on person;--> statement-breakpoint
ALTER TABLE "person" DROP CONSTRAINT "person_role";--> statement-breakpoint
ALTER TABLE "person" ALTER COLUMN "password_hash" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "roles" text[];--> statement-breakpoint
update person set roles = array[role];--> statement-breakpoint
ALTER TABLE "person" ALTER COLUMN "roles" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "person" DROP COLUMN "role";--> statement-breakpoint
ALTER TABLE "person_link" ADD CONSTRAINT "person_link_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person" ADD CONSTRAINT "person_roles" CHECK ("person"."roles" <@ array['owner', 'designer', 'stockroom', 'teacher'] and cardinality("person"."roles") > 0);--> statement-breakpoint
create trigger person_changes_seal before update of roles, password_hash, disabled_at on person for each row
  when (old.roles is distinct from new.roles or old.password_hash is distinct from new.password_hash or old.disabled_at is distinct from new.disabled_at)
  execute function person_changes_seal();
