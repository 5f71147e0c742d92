CREATE TABLE "pattern_drawing" (
	"pattern_id" integer PRIMARY KEY NOT NULL,
	"digest" text NOT NULL,
	"figures" jsonb NOT NULL,
	"view" text
);
--> statement-breakpoint
ALTER TABLE "pattern_drawing" ADD CONSTRAINT "pattern_drawing_pattern_id_pattern_id_fk" FOREIGN KEY ("pattern_id") REFERENCES "public"."pattern"("id") ON DELETE cascade ON UPDATE no action;