CREATE TABLE "shop_logo" (
	"id" integer PRIMARY KEY NOT NULL,
	"digest" text NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"bytes" "bytea" NOT NULL
);
--> statement-breakpoint
create trigger shop_logo_tells after insert or update or delete on shop_logo for each statement execute function tell_changes('settings');
